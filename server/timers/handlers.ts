import { beginAbsences } from '../absences/begin';
import { hearSilence } from '../approvals/silence';
import { hearTalkSilence } from '../assistant/silence';
import { giveNotices } from '../clocks/notices';
import { closeHours } from '../hours/closing';
import { handOver } from '../people/leaving';
import { lookAtPlans } from '../plans/goOn';
import { giveSlipWord } from '../plans/slip';
import { goOnToNextLine } from '../routing/assign';
import { sendSteps } from '../plans/send';
import { giveDueWord, remind } from '../tickets/dueByHand';
import { makeMove } from '../tickets/move';
import type { MoveName } from '../../core/tickets';
import type { TimerHandler } from './runner';
import type { Due } from './model';

function moveHandler(name: MoveName, isStill: (state: string) => boolean): TimerHandler {
  return async (listo, timers, tx) => {
    for (const { ticketNumber } of timers) {
      const ticket = await listo.db.tables.tickets.findOne({ number: ticketNumber }, tx, true);
      if (!ticket || !isStill(ticket.state)) continue;
      await makeMove(listo, tx, ticket, { name, by: 'system', actorId: null, via: 'timer', input: {} });
    }
  };
}

export const timerHandlers: Record<Due['kind'], TimerHandler> = {
  notice: giveNotices,
  closeTicket: moveHandler('close', (state) => state === 'done'),
  resumeTicket: moveHandler('resume', (state) => state === 'held'),
  remind,
  dueByHand: giveDueWord,
  teamCloses: closeHours,
  planLook: lookAtPlans,
  stepSend: sendSteps,
  askSilent: hearSilence,
  slipWord: giveSlipWord,
  goesOn: goOnToNextLine,
  comesBack: beginAbsences,
  leaves: handOver,
  talkSilent: hearTalkSilence,
};
