/** The way that the code on a thing leads; short, so that the code stays coarse and is read from farther away. */
export const codeAddress = (origin: string, id: string): string => `${origin}/t/${id}`;

/**
 * What a scanned code names: a thing of ours by its id, something to look for (the tag of a barcode), or the address of
 * another organisation.
 */
export function readCode(
  scanned: string,
  origin: string,
): { id: string } | { mark: string } | { foreign: string } | null {
  const words = scanned.trim();
  if (words === '') return null;
  if (!/^[a-z][a-z0-9+.-]*:\/\//i.test(words)) return { mark: words.slice(0, 80) };
  const own = `${origin}/t/`;
  const id = words.startsWith(own) ? words.slice(own.length) : '';
  return /^[\w-]{1,40}$/.test(id) ? { id } : { foreign: URL.canParse(words) ? new URL(words).host : words };
}
