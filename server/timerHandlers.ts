import { sealDay } from './audit/seals';
import { beginAbsences } from './absences/begin';
import { hearSilence } from './approvals/silence';
import { hearTalkSilence } from './assistant/silence';
import { giveNotices } from './clocks/notices';
import { closeHours } from './hours/closing';
import { handOver } from './leaving/leaving';
import { lookAtPlans } from './plans/goOn';
import { giveSlipWord } from './plans/slip';
import { goOnToNextLine } from './routing/assign';
import { hearRuleSilence, hearRuleTime } from './rules/silence';
import { sendSteps } from './plans/send';
import { gatherFacts } from './measures/facts';
import { clearAway } from './running/clear';
import { tellNotice } from './notices/tell';
import { giveDueWord, remind } from './tickets/dueByHand';
import { makeMove } from './tickets/move';
import type { MoveName } from '../core/tickets';
import { findDueNotices } from './clocks/dueNotices';
import type { TimerHandler, Timers } from './timers/runner';
import type { Due } from './timers/model';

function moveHandler(name: MoveName, isStill: (state: string) => boolean): TimerHandler {
  return async (listo, due, tx) => {
    for (const { ticketNumber } of due) {
      const ticket = await listo.db.tables.tickets.findOne({ number: ticketNumber }, tx, true);
      if (!ticket || !isStill(ticket.state)) continue;
      await makeMove({ listo, tx }, ticket, { name, by: 'system', actorId: null, via: 'timer', input: {} });
    }
  };
}

const handlers: Record<Due['kind'], TimerHandler> = {
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
  ruleSilent: hearRuleSilence,
  ruleTime: hearRuleTime,
  tellNotice,
  gatherFacts,
  sealDay,
  clearAway,
};

/** What falls due, and what is done then. */
export const timers: Timers = { handlers, findOthers: findDueNotices };
