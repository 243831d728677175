/** Printable ASCII but blanks: what an address of today's mail has (RFC 5321, 4.1.2), and no letter that looks like another. */
const ADDRESS = /^[\x21-\x7e]{1,64}@[\x21-\x7e]{1,190}$/;

/**
 * A mail address in the one form in which addresses are compared, by their bytes; null where it is none. Letters beyond
 * ASCII are refused instead of folded: `ana@sölvarra.example` is another domain than `ana@solvarra.example`.
 * @example toAddress(' Ana@Solvarra.example ') // 'ana@solvarra.example'
 */
export function toAddress(text: string): string | null {
  const trimmed = text.replace(/^[ \t]+|[ \t]+$/g, '');
  return ADDRESS.test(trimmed) ? trimmed.toLowerCase() : null;
}
