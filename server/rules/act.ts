import type { LocalText } from '../../core/forms';
import type { Effect } from '../../core/rules';
import { fillBlanks } from '../../core/text';
import { getPriority, type Impact, type Priority, type Urgency } from '../../core/tickets';
import { parseDuration } from '../../core/calendar';
import { readPriorityTable } from '../catalogue/services';
import { findChat } from '../chat/access';
import { idOf, queueChat } from '../chat/queue';
import { ProblemError } from '../http/problems';
import { append } from '../journal/append';
import { readTicketBlanks } from '../tickets/blanks';
import { progressChanges } from '../tickets/changeFacts';
import type { TicketRecord } from '../tickets/model';
import { makeMove } from '../tickets/move';
import { isAsItIs, recordChange } from '../tickets/record';
import type { UnitOfWork } from '../unitOfWork';
import type { RuleRow } from './model';

/** A rule at work on a locked ticket. `key` is the same however often this is begun. */
export type Acting = { rule: RuleRow; ticket: TicketRecord; key: string };

const BY_RULE = { actorId: null, via: 'rule' } as const;
/** Without a calendar, a day has so many hours. */
const WALL = { hoursPerDay: 24 };

/** Words with their blanks filled: of the ticket, and of those who have to do with it. */
async function fill(work: UnitOfWork, ticket: TicketRecord, words: LocalText): Promise<LocalText> {
  const { blanksIn } = await readTicketBlanks(work, ticket, null);
  return { en: fillBlanks(words.en, blanksIn('en')), pt: fillBlanks(words.pt, blanksIn('pt')) };
}

async function setFact(
  { listo, tx }: UnitOfWork,
  { rule, ticket }: Acting,
  { field, to }: Extract<Effect, { do: 'set' }>,
): Promise<void> {
  const changes: Partial<TicketRecord> = {};
  switch (field) {
    case 'priority':
      Object.assign(changes, { priority: to as Priority, priorityReason: rule.name.en });
      break;
    case 'impact':
    case 'urgency': {
      const { impact, urgency } = { ...ticket, [field]: to } as { impact: Impact; urgency: Urgency };
      const priority = getPriority(await readPriorityTable(listo), impact, urgency);
      Object.assign(changes, { impact, urgency, priority, priorityReason: null });
      break;
    }
    case 'progressId':
      Object.assign(changes, await progressChanges(listo, ticket, to as string | null));
      break;
    case 'title':
    case 'place':
      Object.assign(changes, { [field]: String(to ?? '') });
      break;
    default:
      throw new ProblemError('fieldsNotValid', { fields: [{ field, code: 'notAChoice' }] });
  }
  if (isAsItIs(ticket, changes)) return;
  await recordChange({ listo, tx }, ticket, {
    ...{ changes, entry: { type: 'changed', ...BY_RULE, audience: 'team' } },
  });
}

async function addTold({ listo, tx }: UnitOfWork, ticket: TicketRecord, personIds: string[]): Promise<void> {
  const { tables } = listo.db;
  for (const personId of personIds) {
    if (!(await tables.people.findOne({ id: personId, leftAt: null }, tx)))
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'personId', code: 'notAChoice' }] });
    const key = { ticketNumber: ticket.number, personId, role: 'alsoTold' as const };
    if (await tables.followers.findOne(key, tx)) continue;
    await tables.followers.insert(key, tx);
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: { type: 'followed', ...BY_RULE, data: { personId, role: 'alsoTold' } },
    });
  }
}

/** Of a ticket in confidence only those of its team may be told; nobody else may read it. */
async function readersAmong(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  personIds: string[],
): Promise<string[]> {
  if (!ticket.isConfidential) return personIds;
  const members = await listo.db.tables.members.find({ teamId: ticket.teamId }, { transaction: tx });
  return personIds.filter((id) => members.some(({ personId }) => personId === id));
}

async function writeToRoom(
  { listo, tx }: UnitOfWork,
  { ticket, key }: Acting,
  { roomId, words }: Extract<Effect, { do: 'room' }>,
): Promise<void> {
  const room = await listo.db.tables.chatRooms.findOne({ roomId }, tx);
  if (!room || !(await findChat(listo))) throw new ProblemError('notFound');
  const body = { do: 'ruled', words: await fill({ listo, tx }, ticket, words) } as const;
  await queueChat(listo, tx, { body, to: { ticketNumber: ticket.number, roomId, id: idOf('u', key) } });
}

/** Writes what a rule says: to those who follow the ticket, for the team, or to people it names. */
async function say(
  work: UnitOfWork,
  { rule, ticket }: Acting,
  effect: Extract<Effect, { do: 'answer' | 'note' | 'tell' }>,
): Promise<void> {
  const words = await fill(work, ticket, effect.words);
  const named = { ruleId: rule.id, rule: rule.name, words };
  const entry = { ...BY_RULE, ticketNumber: ticket.number };
  if (effect.do === 'answer')
    await append(work, { ...entry, type: 'ruleSaid', audience: 'requester', data: named });
  else if (effect.do === 'note')
    await append(work, { ...entry, type: 'ruleNoted', audience: 'team', data: named });
  else {
    const personIds = await readersAmong(work, ticket, effect.personIds ?? []);
    const tell = [...effect.whom, ...(personIds.length > 0 ? (['mentioned'] as const) : [])];
    await append(work, { ...entry, type: 'ruleTold', audience: 'team', data: { ...named, tell, personIds } });
  }
}

/** Moves the ticket as a rule says: gives it, holds it, ends it. */
async function move(
  work: UnitOfWork,
  { ticket }: Acting,
  effect: Extract<Effect, { do: 'give' | 'hold' | 'end' }>,
): Promise<void> {
  const { listo, tx } = work;
  const by = { by: 'system', ...BY_RULE } as const;
  if (effect.do === 'give') {
    const { teamId, groupId = null, personId = null } = effect;
    await makeMove(work, ticket, { ...by, name: 'give', input: { teamId, groupId, assigneeId: personId } });
  } else if (effect.do === 'hold') {
    const until = effect.until === undefined ? null : listo.clock.now() + parseDuration(effect.until, WALL);
    const input = { heldFor: effect.for, ...(until !== null && { until }) };
    await makeMove(work, ticket, { ...by, name: 'hold', input });
  } else {
    const { language } = (await listo.db.tables.people.findOne({ id: ticket.requesterId }, tx))!;
    const said = (await fill(work, ticket, effect.words))[language];
    await (effect.as === 'done'
      ? makeMove(work, ticket, { ...by, name: 'finish', input: { solution: said } })
      : makeMove(work, ticket, { ...by, name: 'withdraw', input: { reason: said } }));
  }
}

/** Does one thing that a rule says, judged as if someone did it. @throws ProblemError where it cannot be done */
export async function doEffect(work: UnitOfWork, acting: Acting, effect: Effect): Promise<void> {
  switch (effect.do) {
    case 'set':
      return setFact(work, acting, effect);
    case 'give':
    case 'hold':
    case 'end':
      return move(work, acting, effect);
    case 'answer':
    case 'note':
    case 'tell':
      return say(work, acting, effect);
    case 'alsoTell':
      return addTold(work, acting.ticket, await readersAmong(work, acting.ticket, effect.personIds));
    case 'room':
      return writeToRoom(work, acting, effect);
    default:
      throw new ProblemError('moveNotAllowed');
  }
}
