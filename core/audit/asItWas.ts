import type { Changes } from '../journal';

/** An entry as far as it says what became of fields. `at`: ms since 1970. */
export type Changed = { at: number; changes: Changes };
/** Fields by name. */
export type Facts = Record<string, unknown>;

/**
 * The fields of something as they were at an instant, and what has changed since: what happened later is taken back, the
 * newest first.
 * @param now the fields as they are
 * @param entries what happened, the oldest first
 * @param at ms since 1970; what happened at that instant has happened
 */
export function asItWas(
  now: Facts,
  entries: readonly Changed[],
  at: number,
): { then: Facts; since: Record<string, { then: unknown; now: unknown }> } {
  const then = { ...now };
  for (const { changes } of entries.filter((entry) => entry.at > at).reverse())
    for (const [field, { from }] of Object.entries(changes))
      if (Object.hasOwn(then, field)) then[field] = from;
  const since = Object.entries(then)
    .filter(([field, value]) => JSON.stringify(value) !== JSON.stringify(now[field]))
    .map(([field, value]) => [field, { then: value, now: now[field] }]);
  return { then, since: Object.fromEntries(since) as Record<string, { then: unknown; now: unknown }> };
}
