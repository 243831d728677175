import { append } from '../journal/append';
import type { Audience, ChangeEntry, Changes, NewEntry, Via } from '../../core/journal';
import { headStartOf } from './weights';
import type { TicketRecord } from './model';
import type { UnitOfWork } from '../unitOfWork';

type Recorded = ChangeEntry & { actorId: string | null; via: Via; audience?: Audience };

/** What its head start in the order of next up rests on, beside waiting. */
const PLACED_BY = ['priority', 'teamId', 'requesterId'];

function differences(ticket: TicketRecord, wanted: Partial<TicketRecord>): Changes {
  const changes: Changes = {};
  for (const [field, to] of Object.entries(wanted)) {
    const from = ticket[field as keyof TicketRecord];
    if (from !== to && !(typeof from === 'number' && typeof to === 'boolean' && Boolean(from) === to))
      changes[field] = { from, to };
  }
  return changes;
}

/** Whether a ticket has all of these values already. */
export function isAsItIs(ticket: TicketRecord, wanted: Partial<TicketRecord>): boolean {
  return Object.keys(differences(ticket, wanted)).length === 0;
}

/**
 * Changes a (locked) ticket and records it: the one door through which tickets change. Fields that would stay as
 * they are, are left out; the entry carries the version that came of it.
 */
export async function recordChange(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  {
    changes: wanted,
    entry: { type, actorId, via, audience = 'requester', data = {} },
  }: { changes: Partial<TicketRecord>; entry: Recorded },
): Promise<{ version: number; entryId: number }> {
  const now = listo.clock.now();
  // Follows from what is recorded; not itself a fact of the ticket.
  const { waitsSince = ticket.waitsSince, ...facts } = wanted;
  const changes = differences(ticket, facts);
  const isChanged = Object.keys(changes).length > 0;
  const version = isChanged ? ticket.version + 1 : ticket.version;
  const row = Object.fromEntries(Object.entries(changes).map(([field, { to }]) => [field, to]));
  const placed = { ...ticket, ...row, waitsSince };
  const isPlacedAnew =
    waitsSince !== ticket.waitsSince || PLACED_BY.some((field) => changes[field] !== undefined);
  const derived = {
    version,
    changedAt: now,
    ...(isPlacedAnew && { waitsSince, headStart: await headStartOf(listo, placed) }),
  };
  await listo.db.tables.tickets.update({ number: ticket.number }, { ...row, ...derived }, tx);
  const frame = { at: now, actorId, via, ticketNumber: ticket.number, audience, changes };
  // What the kind carries, with the version that came of it, is what its entries carry.
  const entryId = await append({ listo, tx }, { ...frame, type, data: { ...data, version } } as NewEntry);
  Object.assign(ticket, row, derived);
  return { version, entryId };
}
