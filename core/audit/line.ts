import type { JournalEntry } from '../journal';

/** An entry of the journal with the numbers that it has there. */
export type AuditEntry = JournalEntry & { id: number };

/** The same value in one form alone: names in order, nothing that is not there. */
function inOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).filter(([, each]) => each !== undefined && each !== null);
  return Object.fromEntries(
    entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, each]) => [name, inOrder(each)]),
  );
}

/**
 * An entry as one line of JSON: instants as ISO 8601 in UTC, names in order, so that the same entry always makes the
 * same line. It is what goes out as JSON lines, and what the seal of a stretch rests on.
 */
export function toLine({ id, at, actorId, via, type, ticketNumber, ...rest }: AuditEntry): string {
  const { work, audience, changes, data, byRules, aboutId, keyId } = rest;
  const by = { actorId, keyId, byRules };
  const about = { ticketNumber, work, aboutId };
  return JSON.stringify(
    inOrder({ id, at: new Date(at).toISOString(), type, via, audience, ...by, ...about, changes, data }),
  );
}
