import { record } from '../journal/append';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { TicketRecord } from './model';

/** Whoever looks at the same ticket again within this is written down once. */
const ONCE_IN_MS = 3_600_000;
const MOST_KNOWN = 10_000;
const looked = new WeakMap<object, Map<string, number>>();

/** Writes down that somebody else than its requester looked at a ticket in confidence. */
export async function noteLook(listo: Listo, { id }: SignedIn, ticket: TicketRecord): Promise<void> {
  if (!ticket.isConfidential || id === ticket.requesterId) return;
  const known = looked.get(listo.db) ?? new Map<string, number>();
  looked.set(listo.db, known);
  const [key, now] = [`${id} ${ticket.number}`, listo.clock.now()];
  const last = known.get(key);
  if (last !== undefined && now - last < ONCE_IN_MS) return;
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(key, now);
  await record(listo, {
    by: id,
    type: 'confidentialRead',
    data: { personId: id, number: ticket.number },
  });
}
