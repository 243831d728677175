import type { JournalEntry } from '../../core/journal';
import { fillBlanks } from '../../core/text';
import { BREACH_PERCENT, findNotice, LATE, type TargetNotice } from '../../core/targets';
import { isOpen, PRIORITIES } from '../../core/tickets';
import { toEntry } from '../journal/append';
import { makeMove } from '../tickets/move';
import type { TicketRecord } from '../tickets/model';
import { recordChange } from '../tickets/record';
import type { TimerHandler } from '../timers/runner';
import type { ClockRow, TargetRow } from './model';
import { fromNoticeRef, isGiven, toNoticeRef } from './settle';
import type { UnitOfWork } from '../unitOfWork';

/** Late by more than this, a notice says that it comes late. */
const LATE_MS = 1_000;

function wordsOf(
  notice: TargetNotice | null,
  ticket: TicketRecord,
  { target, percent }: { target: TargetRow; percent: number },
) {
  if (!notice?.words) return null;
  const { number, title } = ticket;
  const blanks = { number, title, target: target.definition.name, percent };
  const { en, pt } = notice.words;
  return { en: fillBlanks(en, blanks), pt: fillBlanks(pt, blanks) };
}

/** What a target does with the ticket at this share, beside telling: hands it on, makes it more urgent. */
async function act(
  { listo, tx }: UnitOfWork,
  { ticket, target }: { ticket: TicketRecord; target: TargetRow },
  { handTo, raisesPriority }: TargetNotice,
): Promise<void> {
  const reason = target.definition.name;
  const raised = PRIORITIES[PRIORITIES.indexOf(ticket.priority) - 1];
  if (raisesPriority && raised !== undefined)
    await recordChange({ listo, tx }, ticket, {
      changes: { priority: raised, priorityReason: reason },
      entry: {
        type: 'changed',
        actorId: null,
        via: 'rule',
        audience: 'team',
        data: { targetId: target.id, target: reason },
      },
    });
  if (!handTo) return;
  const { teamId, groupId, personId } = handTo;
  if (ticket.teamId === teamId && ticket.assigneeId === personId && ticket.groupId === groupId) return;
  await makeMove({ listo, tx }, ticket, {
    ...{ name: 'give', by: 'system', actorId: null, via: 'rule' },
    input: { teamId, groupId, assigneeId: personId },
  });
}

type Given = { ticket: TicketRecord; notice: TargetNotice; target: TargetRow };

/**
 * Gives warnings or the word of breaches, each once, at its instant or (after downtime) late and marked so. Many that
 * fall due together are given in a few statements; then the targets act, where they do more than tell.
 */
export const giveNotices: TimerHandler = async (listo, notices, tx) => {
  const { tables, runBound } = listo.db;
  const numbers = [...new Set(notices.map(({ ticketNumber }) => ticketNumber))];
  const clocks = await listo.db.select<ClockRow>(
    'SELECT * FROM clocks WHERE ticketNumber IN (:numbers) FOR UPDATE',
    { numbers },
    tx,
  );
  const tickets = await tables.tickets.find({ number: numbers }, { transaction: tx });
  const targets = await tables.targets.find({ isOn: true }, { transaction: tx });
  const now = listo.clock.now();
  const due = new Set<ClockRow>();
  const entries: JournalEntry[] = [];
  const acting: Given[] = [];
  for (const { ticketNumber, ref, at } of notices) {
    const { work, targetId, what } = fromNoticeRef(ref);
    const isLate = what === LATE;
    const ticket = tickets.find(({ number }) => number === ticketNumber);
    const target = targets.find(({ id }) => id === targetId);
    const clock = clocks.find(
      (each) => each.ticketNumber === ticketNumber && each.work === work && each.targetId === targetId,
    );
    if (!clock) continue;
    clock.owed = clock.owed.filter((owed) => toNoticeRef(work, { targetId, what: owed[0] }, owed[1]) !== ref);
    clock.nextAt = clock.owed[0]?.[1] ?? null;
    due.add(clock);
    // It may have been given, also by another instant, while what is owed was looked up.
    if (!ticket || !target || isGiven([what, at], clock, now)) continue;
    clock.fired.push(ref);
    const percent = isLate ? BREACH_PERCENT : Number(what);
    const notice = findNotice(target.notices, percent);
    const words = wordsOf(notice, ticket, { target, percent });
    const data = {
      targetId,
      target: target.definition.name,
      dueAt: at,
      isOverdueNotice: now - at > LATE_MS,
      ...(notice && { tell: notice.tell }),
      ...(words && { words }),
    };
    entries.push(
      toEntry(now, {
        ...{ actorId: null, via: 'timer', ticketNumber, work, audience: 'team' },
        ...(isLate ? { type: 'late', data } : { type: 'warned', data: { ...data, percent } }),
      }),
    );
    if (notice && work === 'ticket' && (notice.handTo || notice.raisesPriority))
      acting.push({ ticket, notice, target });
  }
  await runBound(
    `UPDATE clocks c JOIN JSON_TABLE(?, '$[*]' COLUMNS (ticketNumber BIGINT PATH '$.ticketNumber',
         work VARCHAR(60) PATH '$.work', targetId VARCHAR(40) PATH '$.targetId',
         fired JSON PATH '$.fired', owed JSON PATH '$.owed', nextAt BIGINT PATH '$.nextAt')) d
         ON d.ticketNumber = c.ticketNumber AND d.work = c.work AND d.targetId = c.targetId
         SET c.fired = d.fired, c.owed = d.owed, c.nextAt = d.nextAt`,
    [JSON.stringify([...due])],
    tx,
  );
  await tables.journal.insertAll(entries, tx);
  for (const { ticket, notice, target } of acting) {
    // As it is by now: an earlier notice may have moved it.
    const current = await tables.tickets.findOne({ number: ticket.number }, tx, true);
    if (current && isOpen(current.state) && current.heldFor !== 'approval')
      await act({ listo, tx }, { ticket: current, target }, notice);
  }
};
