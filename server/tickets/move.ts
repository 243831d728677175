import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import {
  isOpen,
  planMove,
  takenUpBy,
  type Door,
  type MoveInput,
  type MoveName,
  type MoverRole,
  type TicketChanges,
} from '../../core/tickets';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { TicketEntryKind, Via } from '../../core/journal';
import { requireTicket } from './guard';
import { insertMessage } from './messages';
import type { TicketRecord } from './model';
import { recordChange } from './record';
import { refuseStale } from './stale';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';

/** What a move is called in the journal. */
export const ENTRY_TYPES = {
  take: 'taken',
  hold: 'held',
  resume: 'resumed',
  finish: 'done',
  confirm: 'confirmed',
  reopen: 'reopened',
  close: 'closed',
  withdraw: 'withdrawn',
  give: 'givenOn',
  grant: 'granted',
  decline: 'declined',
} as const satisfies Record<MoveName, TicketEntryKind>;

type Move = { name: MoveName; by: MoverRole; actorId: string | null; via: Via; input: MoveInput };

/** A team that exists, with its confidentiality; the person and the group must be of it. */
async function checkReceivers(
  { listo, tx }: UnitOfWork,
  changes: TicketChanges,
): Promise<Partial<TicketRecord>> {
  const { teamId, groupId, assigneeId } = changes;
  if (teamId === undefined) return {};
  const { tables } = listo.db;
  const refuse = (field: string) =>
    new ProblemError('fieldsNotValid', { fields: [{ field, code: 'notAChoice' }] });
  const team = await tables.teams.findOne({ id: teamId }, tx);
  if (!team) throw refuse('teamId');
  if (groupId && !(await tables.groups.findOne({ id: groupId, teamId }, tx))) throw refuse('groupId');
  if (assigneeId && !(await tables.members.findOne({ personId: assigneeId, teamId }, tx)))
    throw refuse('assigneeId');
  return { isConfidential: team.isConfidential };
}

/** Makes a move on a locked ticket: judged by the rules, with the words that go with it. */
export async function makeMove({ listo, tx }: UnitOfWork, ticket: TicketRecord, move: Move): Promise<number> {
  const { name, by, actorId, via, input } = move;
  const plan = planMove(ticket, { name, by, actorId, input, now: listo.clock.now() });
  if (!plan.ok) {
    if (plan.reason === 'notAllowed') throw new ProblemError('moveNotAllowed');
    throw new ProblemError('fieldsNotValid', { fields: plan.problems });
  }
  const isByTeam = by === 'agent';
  const say = (text: string, readBy: 'requester' | 'team') =>
    insertMessage(
      { listo, tx },
      {
        ticketNumber: ticket.number,
        authorId: actorId!,
        via: via === 'timer' || via === 'rule' || via === 'api' ? 'desk' : via,
        readBy,
        isByTeam,
        text,
      },
    );
  const takenUp = takenUpBy({ name, by, actorId, input });
  // Also where it goes on to another team at once: who moved it has begun, and those who get it have yet to.
  if (takenUp.before && takenUp.after === false && !ticket.takenUp)
    await recordChange({ listo, tx }, ticket, {
      changes: { takenUp: true },
      entry: { type: 'takenUp', actorId, via, audience: 'team' },
    });
  const messageId = plan.message !== null && actorId !== null ? await say(plan.message, 'requester') : null;
  const wanted: Partial<TicketRecord> = {
    ...plan.changes,
    ...(await checkReceivers({ listo, tx }, plan.changes)),
    ...(messageId !== null && isByTeam && { answered: true, waitsSince: null }),
    ...(takenUp.after !== null && { takenUp: takenUp.after }),
    ...((name === 'reopen' || name === 'grant') && { waitsSince: listo.clock.now() }),
    ...(plan.changes.state && !isOpen(plan.changes.state) && { waitsSince: null }),
    ...(name === 'decline' && { isDeclined: true }),
  };
  const data = { ...(messageId !== null && { messageId }), by };
  const { version } = await recordChange({ listo, tx }, ticket, {
    changes: wanted,
    entry: {
      type: ENTRY_TYPES[name],
      actorId,
      via,
      data,
    },
  });
  if (plan.note !== null && actorId !== null) {
    const noteId = await say(plan.note, 'team');
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: { type: 'noted', actorId, via, audience: 'team', data: { messageId: noteId } },
    });
  }
  await listo.ports.tickets.moved({ listo, tx }, ticket, name);
  return version;
}

/** What a move rests on: if one of these changed meanwhile, the mover looks again. */
const RESTS_ON = ['state', 'heldFor', 'assigneeId', 'teamId'] as const;

type Body = BodyOf<typeof api.tickets.move>;

/** Makes a move in a transaction that is under way. */
export async function moveWithin(
  { listo, tx, viewer }: WorkOfViewer,
  number: number,
  { move: { name, by, version, input }, door }: { move: Body; door?: Door },
): Promise<{ version: number }> {
  const right = by !== 'agent' ? 'own' : name === 'give' ? 'giveOn' : 'work';
  // Somebody holds a ticket: a program gives it to one.
  if (viewer.byKey && name === 'take') throw new ProblemError('forPeopleOnly');
  const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: right });
  const actorId = viewer.id;
  const planned = planMove(ticket, { name, by, actorId, input, now: listo.clock.now() });
  const yours: Record<string, unknown> = planned.ok ? planned.changes : {};
  const restsOn = Object.fromEntries(RESTS_ON.map((field) => [field, yours[field]]));
  await refuseStale({ listo, tx }, ticket, { version, restsOn });
  const via = door ?? (by === 'agent' ? 'desk' : 'portal');
  return { version: await makeMove({ listo, tx }, ticket, { name, by, actorId, via, input }) };
}

export async function moveTicket(
  { listo, viewer, actor }: Changing,
  number: number,
  body: Body,
): Promise<{ version: number }> {
  return change(listo, actor, (tx) => moveWithin({ listo, tx, viewer }, number, { move: body }));
}
