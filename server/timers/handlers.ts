import { append } from '../journal/append';
import { makeMove } from '../tickets/move';
import type { MoveName } from '../../core/tickets';
import type { TimerHandler } from './runner';
import type { TimerKind } from './model';

/** Late by more than this, a notice says that it comes late. */
const LATE_MS = 1_000;

function noticeHandler(type: 'late' | 'warned'): TimerHandler {
  return async (listo, { ticketNumber, ref, at }, tx) => {
    const { tables } = listo.db;
    const [targetId = '', what = ''] = ref.split(/[:@]/);
    const clock = await tables.clocks.findOne({ ticketNumber, targetId }, tx, true);
    const target = await tables.targets.findOne({ id: targetId }, tx);
    if (!clock || !target || clock.fired.includes(ref)) return;
    await tables.clocks.update({ ticketNumber, targetId }, { fired: [...clock.fired, ref] }, tx);
    const data = {
      targetId,
      target: target.definition.name,
      dueAt: at,
      isOverdueNotice: listo.clock.now() - at > LATE_MS,
      ...(type === 'warned' && { percent: Number(what) }),
    };
    await append(listo, tx, { actorId: null, via: 'timer', type, ticketNumber, audience: 'team', data });
  };
}

function moveHandler(name: MoveName, isStill: (state: string) => boolean): TimerHandler {
  return async (listo, { ticketNumber }, tx) => {
    const ticket = await listo.db.tables.tickets.findOne({ number: ticketNumber }, tx, true);
    if (!ticket || !isStill(ticket.state)) return;
    await makeMove(listo, tx, ticket, { name, by: 'system', actorId: null, via: 'timer', input: {} });
  };
}

export const timerHandlers: Record<TimerKind, TimerHandler> = {
  clockLate: noticeHandler('late'),
  clockWarned: noticeHandler('warned'),
  closeTicket: moveHandler('close', (state) => state === 'done'),
  resumeTicket: moveHandler('resume', (state) => state === 'held'),
};
