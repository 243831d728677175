/**
 * What a record holds under a key from outside; undefined where it holds nothing. A plain object also answers to names
 * that every object inherits (`constructor`, `__proto__`), which are no entries of it.
 * @example getOwn({ a: 1 }, 'constructor') // undefined
 */
export function getOwn<T>(record: Readonly<Record<string, T>>, key: string): T | undefined {
  return Object.hasOwn(record, key) ? record[key] : undefined;
}

/** Whether a record has an entry under a key from outside. */
export const hasOwn = (record: object, key: string): boolean => Object.hasOwn(record, key);

/**
 * Writes an entry under a key from outside. A plain assignment to `__proto__` would change what the record inherits
 * instead.
 */
export function setOwn<T>(record: Record<string, T>, key: string, value: T): void {
  if (key in Object.prototype)
    Object.defineProperty(record, key, { value, enumerable: true, writable: true, configurable: true });
  else record[key] = value;
}
