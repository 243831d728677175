/** How a key is written: the mark by which it is known wherever it turns up, the id of the key, and its secret. */
const FORM = /^listo_([A-Za-z0-9]{10})_([A-Za-z0-9_-]{43})$/;

/** The id of a key is public; its secret is shown once and kept as a hash alone. */
export type ApiKeyParts = { id: string; secret: string };

/**
 * A key as a program sends it.
 * @example toApiKey({ id: 'a1b2c3d4e5', secret }) // 'listo_a1b2c3d4e5_…'
 */
export const toApiKey = ({ id, secret }: ApiKeyParts): string => `listo_${id}_${secret}`;

/** The parts of a key; null: these are not the words of a key. */
export function parseApiKey(words: string): ApiKeyParts | null {
  const [, id, secret] = FORM.exec(words) ?? [];
  return id !== undefined && secret !== undefined ? { id, secret } : null;
}

/**
 * The key that an `Authorization` field carries, as RFC 6750 (2.1) has it; null: the field carries something else.
 * @example bearerOf('Bearer listo_…') // 'listo_…'
 */
export function bearerOf(field: string | undefined): string | null {
  return /^Bearer +([\w~+/.-]+=*) *$/i.exec(field ?? '')?.[1] ?? null;
}
