/** What stands where the words of an erased person stood, in any language. */
export const TOMBSTONE = '[erased]';

/**
 * A value without what it said, in the shape that it had: words become a tombstone, numbers become nothing, the rest of the
 * shape stays, so that what reads it goes on working.
 * @example eraseValue({ phone: '555 0199', wants: ['cap'] }) // { phone: '[erased]', wants: ['[erased]'] }
 */
export function eraseValue(value: unknown): unknown {
  if (typeof value === 'string') return value === '' ? '' : TOMBSTONE;
  if (typeof value === 'number' || typeof value === 'bigint') return null;
  if (Array.isArray(value)) return value.map(eraseValue);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([name, each]) => [name, eraseValue(each)]));
}

/** The fields of a ticket that hold what its requester wrote. */
const WRITTEN = new Set(['title', 'place', 'answers', 'ratingWord']);
/** What an entry carries that may hold words of whoever did it. */
const SAID = new Set(['said', 'reason', 'words', 'question', 'answer']);

/** An entry as far as it holds words. */
type Said = { changes: Record<string, { from: unknown; to: unknown }>; data: Record<string, unknown> };

/**
 * An entry of the journal without the words of an erased person: which fields changed stays, from what to what does not.
 * Null: it holds none.
 */
export function eraseEntry({ changes, data }: Said): Said | null {
  const isOf = (names: Set<string>, name: string, value: unknown): boolean =>
    names.has(name) && JSON.stringify(eraseValue(value)) !== JSON.stringify(value);
  const changed = Object.entries(changes).filter(([name, value]) => isOf(WRITTEN, name, value));
  const said = Object.entries(data).filter(([name, value]) => isOf(SAID, name, value));
  if (changed.length + said.length === 0) return null;
  const erased = (entries: [string, unknown][]) =>
    Object.fromEntries(entries.map(([name, value]) => [name, eraseValue(value)]));
  return {
    changes: { ...changes, ...(erased(changed) as Said['changes']) },
    data: { ...data, ...erased(said) },
  };
}
