import type { TicketAsItWas } from '../../contract/records';
import { asItWas, type Facts } from '../../core/audit';
import { factsOfEntry, isShown } from '../../core/journal';
import { ProblemError } from '../http/problems';
import type { Changes } from '../../core/journal';
import { readNames } from '../people/names';
import { readChangeNames } from '../tickets/changeNames';
import { listRights, requireTicket } from '../tickets/guard';
import type { JournalRow } from '../journal/model';
import type { Viewing } from '../unitOfWork';

/** The fields of a ticket of which the journal says what became of them. */
const FIELDS = [
  ...([
    'title',
    'state',
    'heldFor',
    'priority',
    'impact',
    'urgency',
    'teamId',
    'groupId',
    'assigneeId',
  ] as const),
  ...(['requesterId', 'serviceId', 'place', 'solution', 'dueAt', 'progressId', 'rating'] as const),
];

/** Values of fields with names in the place of ids. */
function named(toNames: (kind: string, changes: Changes) => Changes, facts: Facts): Facts {
  const changes = Object.fromEntries(Object.entries(facts).map(([field, to]) => [field, { from: null, to }]));
  return Object.fromEntries(
    Object.entries(toNames('changed', changes)).map(([field, { to }]) => [field, to]),
  );
}

/**
 * A ticket as it was at an instant, read from its journal, and what has changed since. Who reads the team's side reads what
 * was said on it.
 * @param at ms since 1970
 * @throws ProblemError notFound where the viewer may not read it, or it was not there yet
 */
export async function readTicketAsItWas(
  viewing: Viewing,
  number: number,
  at: number,
): Promise<TicketAsItWas> {
  const { listo, viewer } = viewing;
  const { ticket, guarded } = await requireTicket(viewing, { number, action: 'read' });
  if (at < ticket.createdAt) throw new ProblemError('notFound');
  const isTeamSide = listRights(viewer, guarded, ['readNotes']).length > 0;
  const { tables } = listo.db;
  const rows = await tables.journal.find({ ticketNumber: number }, { order: ['id'] });
  const now = Object.fromEntries(FIELDS.map((field) => [field, ticket[field]]));
  const { then, since } = asItWas(now, rows, at);
  const ends = {
    type: 'changed',
    changes: Object.fromEntries(FIELDS.map((field) => [field, { from: then[field], to: now[field] }])),
  };
  const toNames = await readChangeNames(listo, [ends as unknown as JournalRow]);
  const [thenNamed, nowNamed] = [named(toNames, then), named(toNames, now)];
  const shown = rows.filter(
    ({ type, audience }) => isShown(type) && (isTeamSide || audience === 'requester'),
  );
  const ids = shown.flatMap((row) => factsOfEntry(row).messageId ?? []);
  const messages = ids.length > 0 ? await tables.messages.find({ id: ids }) : [];
  const names = await readNames(
    listo,
    shown.map(({ actorId }) => actorId),
  );
  return {
    ...{ number, at, then: thenNamed },
    since: Object.fromEntries(
      Object.keys(since).map((field) => [field, { then: thenNamed[field], now: nowNamed[field] }]),
    ),
    entries: shown.map((row) => ({
      ...{ id: row.id, at: row.at, kind: row.type, isLater: row.at > at },
      actor: row.actorId === null ? null : (names.get(row.actorId) ?? row.actorId),
      text: messages.find(({ id }) => id === factsOfEntry(row).messageId)?.text ?? null,
    })),
  };
}
