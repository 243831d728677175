import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { getPriority, moveProgress } from '../../core/tickets';
import { readPriorityTable } from '../catalogue/services';
import { change } from '../http/change';
import { checkReminder } from '../../core/due';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { toDueColumns } from './dueByHand';
import { requireTicket } from './guard';
import { isAsItIs, recordChange } from './record';
import { refuseStale } from './stale';
import type { TicketRecord } from './model';
import type { Changing, WorkOfViewer } from '../unitOfWork';

type Body = BodyOf<typeof api.tickets.change>;

/** Impact and urgency give the priority, unless someone overrides it and says why. */
async function priorityChanges(
  listo: Listo,
  ticket: TicketRecord,
  wanted: Omit<Body, 'version'>,
): Promise<Partial<TicketRecord>> {
  const { impact = ticket.impact, urgency = ticket.urgency, priority, priorityReason } = wanted;
  if (priority !== undefined) {
    if (priorityReason === undefined)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'priorityReason', code: 'missing' }] });
    return { impact, urgency, priority, priorityReason };
  }
  if (wanted.impact === undefined && wanted.urgency === undefined) return {};
  return {
    impact,
    urgency,
    priority: getPriority(await readPriorityTable(listo), impact, urgency),
    priorityReason: null,
  };
}

/** A label of the ticket's own team. */
export async function progressChanges(
  listo: Listo,
  ticket: TicketRecord,
  progressId: string | null,
): Promise<Partial<TicketRecord>> {
  const labels = (await listo.db.tables.teams.findOne({ id: ticket.teamId }))?.progressLabels ?? [];
  if (progressId !== null && !labels.some(({ id }) => id === progressId))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'progressId', code: 'notAChoice' }] });
  return moveProgress(labels, ticket, progressId, listo.clock.now());
}

/** Refuses a due instant and a reminder that do not go together. @throws ProblemError */
function refuseReminder(remindAt: number | null, dueAt: number | null, now: number): void {
  const code = remindAt === null ? null : checkReminder(remindAt, dueAt, now);
  if (code !== null) throw new ProblemError('fieldsNotValid', { fields: [{ field: 'remindAt', code }] });
}

/** What says what the ticket is about, not how its team works on it. */
const MENDED: readonly string[] = ['title', 'place', 'impact', 'urgency'];
const isMending = (wanted: Omit<Body, 'version'>): boolean =>
  Object.keys(wanted).every((field) => MENDED.includes(field));

/** Changes facts in a transaction that is under way. */
export async function changeFactsWithin(
  { listo, tx, viewer }: WorkOfViewer,
  number: number,
  { version, ...wanted }: Body,
): Promise<{ version: number }> {
  const { ticket } = await requireTicket(
    { listo, viewer, tx },
    { number, action: isMending(wanted) ? 'mend' : 'work' },
  );
  const { due, remindAt, ...facts } = wanted;
  const byHand: Partial<Pick<TicketRecord, 'dueAt' | 'dueDate'>> =
    due === undefined ? {} : await toDueColumns({ listo, tx }, ticket, due);
  await refuseStale({ listo, tx }, ticket, { version, restsOn: { ...facts, ...byHand } });
  const { dueAt = ticket.dueAt } = byHand;
  refuseReminder(remindAt ?? null, dueAt, listo.clock.now());
  const changes = {
    ...byHand,
    // A reminder goes with what it reminds of.
    ...(due !== undefined && (dueAt === null || (ticket.remindAt ?? 0) >= dueAt) && { remindAt: null }),
    ...(remindAt !== undefined && { remindAt }),
    ...(wanted.title !== undefined && { title: wanted.title }),
    ...(wanted.place !== undefined && { place: wanted.place }),
    ...(await priorityChanges(listo, ticket, wanted)),
    ...(wanted.progressId !== undefined && (await progressChanges(listo, ticket, wanted.progressId))),
  };
  // What changes nothing is no event.
  if (isAsItIs(ticket, changes)) return { version: ticket.version };
  const recorded = await recordChange({ listo, tx }, ticket, {
    changes,
    entry: {
      type: 'changed',
      actorId: viewer.id,
      via: 'desk',
    },
  });
  return { version: recorded.version };
}

/** Changes facts of a ticket in place. */
export async function changeFacts(
  { listo, viewer, actor }: Changing,
  number: number,
  body: Body,
): Promise<{ version: number }> {
  return change(listo, actor, (tx) => changeFactsWithin({ listo, tx, viewer }, number, body));
}
