/** A column of JSON as it was stored: some statements give it as text, some read already. */
export const parsed = <T>(value: T | string): T =>
  typeof value === 'string' ? (JSON.parse(value) as T) : value;
