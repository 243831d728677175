import type { Transaction } from 'sequelize';
import { fillBlanks } from '../../core/text';
import { BREACH_PERCENT, findNotice, type TargetNotice } from '../../core/targets';
import { isOpen, PRIORITIES } from '../../core/tickets';
import { append } from '../journal/append';
import type { Listo } from '../listo';
import { makeMove } from '../tickets/move';
import type { TicketRecord } from '../tickets/model';
import { recordChange } from '../tickets/record';
import type { TimerHandler } from '../timers/runner';
import type { TargetRow } from './model';
import { fromNoticeRef } from './settle';

/** Late by more than this, a notice says that it comes late. */
const LATE_MS = 1_000;

function wordsOf(notice: TargetNotice | null, ticket: TicketRecord, target: TargetRow, percent: number) {
  if (!notice?.words) return null;
  const { number, title } = ticket;
  const blanks = { number, title, target: target.definition.name, percent };
  const { en, pt } = notice.words;
  return { en: fillBlanks(en, blanks), pt: fillBlanks(pt, blanks) };
}

/** What a target does with the ticket at this share, beside telling: hands it on, makes it more urgent. */
async function act(
  listo: Listo,
  tx: Transaction,
  ticket: TicketRecord,
  target: TargetRow,
  { handTo, raisesPriority }: TargetNotice,
): Promise<void> {
  const reason = target.definition.name;
  const raised = PRIORITIES[PRIORITIES.indexOf(ticket.priority) - 1];
  if (raisesPriority && raised !== undefined)
    await recordChange(
      listo,
      tx,
      ticket,
      { priority: raised, priorityReason: reason },
      {
        type: 'changed',
        actorId: null,
        via: 'rule',
        audience: 'team',
        data: { targetId: target.id, target: reason },
      },
    );
  if (!handTo) return;
  const { teamId, groupId, personId } = handTo;
  if (ticket.teamId === teamId && ticket.assigneeId === personId && ticket.groupId === groupId) return;
  await makeMove(listo, tx, ticket, {
    ...{ name: 'give', by: 'system', actorId: null, via: 'rule' },
    input: { teamId, groupId, assigneeId: personId },
  });
}

/** Gives a warning or the word of a breach, once, at its instant or (after downtime) late and marked so. */
export function noticeHandler(type: 'late' | 'warned'): TimerHandler {
  return async (listo, { ticketNumber, ref, at }, tx) => {
    const { tables } = listo.db;
    const { work, targetId, what } = fromNoticeRef(ref);
    const ticket = await tables.tickets.findOne({ number: ticketNumber }, tx, true);
    const clock = await tables.clocks.findOne({ ticketNumber, work, targetId }, tx, true);
    const target = await tables.targets.findOne({ id: targetId, isOn: true }, tx);
    if (!ticket || !clock || !target || clock.fired.includes(ref)) return;
    await tables.clocks.update({ ticketNumber, work, targetId }, { fired: [...clock.fired, ref] }, tx);
    const percent = type === 'late' ? BREACH_PERCENT : Number(what);
    const notice = findNotice(target.notices, percent);
    const words = wordsOf(notice, ticket, target, percent);
    const data = {
      targetId,
      target: target.definition.name,
      dueAt: at,
      isOverdueNotice: listo.clock.now() - at > LATE_MS,
      ...(type === 'warned' && { percent }),
      ...(notice && { tell: notice.tell }),
      ...(words && { words }),
    };
    await append(listo, tx, {
      actorId: null,
      via: 'timer',
      type,
      ticketNumber,
      work,
      audience: 'team',
      data,
    });
    if (notice && work === 'ticket' && isOpen(ticket.state) && ticket.heldFor !== 'approval')
      await act(listo, tx, ticket, target, notice);
  };
}
