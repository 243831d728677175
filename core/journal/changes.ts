import type { Changes } from './types';

/** What of a ticket concerns the one who asked, and is told to them when it changes. */
const OF_REQUESTER = new Set(['title', 'place', 'priority', 'progressId', 'state', 'heldFor']);

/** What changed with another field, and is said by it. */
const SAID_BY_ANOTHER = new Set([
  ...['progressFinishedAt', 'waitsSince', 'takenUp', 'answered', 'heldReason', 'underAs'],
  ...['resolvedAt', 'closedAt', 'isDeclined'],
]);

/** Several changes, earliest first, as one: from what stood before the first, to what the last left. */
export function inOne(changes: readonly Changes[]): Changes {
  const whole: Changes = {};
  for (const one of changes)
    for (const [field, { from, to }] of Object.entries(one))
      whole[field] = { from: whole[field] ? whole[field].from : from, to };
  return whole;
}

/** The changes that a reader is told of: the team of all, the requester of what concerns them. */
export function changesFor(reader: 'requester' | 'team', changes: Changes): Changes {
  return Object.fromEntries(
    Object.entries(changes).filter(
      ([field]) => !SAID_BY_ANOTHER.has(field) && (reader === 'team' || OF_REQUESTER.has(field)),
    ),
  );
}
