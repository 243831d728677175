import { askForStep, isAgreedFirst, onAnswersChanged, onMoved, onOpened } from './approvals/ofTicket';
import { answerQuestions } from './approvals/question';
import { readApprovals } from './approvals/read';
import { findMailAnswers, keepSent, keepWasIt } from './assistant/byMail';
import { readOwnWords } from './assistant/words';
import { beginCatalogue } from './catalogue/lastResort';
import { readChatOf } from './chat/ofTicket';
import { readClocks } from './clocks/read';
import { tieAnswered, tieOpened, tieRefiled } from './estate/ofTicket';
import { finishWith, requireTiable, tieWithin } from './notices/tie';
import { readPlan } from './plans/read';
import type { Ports } from './ports';
import { endThere } from './signOn/flow';
import { listProviders } from './signOn/list';
import { onCalendarChanged, onTeamChanged } from './recounts/workingTime';
import { addTwoPromises } from './targets/ofTeam';
import { onWorkMoved } from './works/granted';
import { countOpen } from './tickets/openByService';

/** Who takes part in what happens on the lower floors. */
export const PORTS: Ports = {
  bulk: {
    tie: async (work, noticeId, number) => tieWithin(work, await requireTiable(work, noticeId), number),
    finishWith,
  },
  calendars: { changed: onCalendarChanged },
  catalogue: { countOpen },
  mail: { findMailAnswers, keepSent, keepWasIt },
  plans: { ask: askForStep },
  sessions: {
    hasAssistant: async (listo) => (await readOwnWords(listo)).isOn,
    begun: beginCatalogue,
    providers: listProviders,
    ended: endThere,
  },
  teams: { made: addTwoPromises, changed: onTeamChanged },
  tickets: {
    isAgreedFirst,
    async opened(work, ticket, service) {
      await tieOpened(work, ticket, service.form);
      await onOpened(work, ticket, service);
    },
    refiled: (work, ticket, service) => tieRefiled(work, ticket, service.form),
    async moved(work, ticket, move) {
      await onMoved(work, ticket, move);
      await onWorkMoved(work, ticket, move);
    },
    answered: answerQuestions,
    async answersChanged(work, ticket, service) {
      await tieAnswered(work, ticket, service.form);
      await onAnswersChanged(work, ticket, service);
    },
    async read({ listo, viewer }, ticket, rights) {
      const { number } = ticket;
      const [approvals, plan, clocks, chat] = await Promise.all([
        readApprovals(listo, number),
        readPlan({ listo, viewer }, ticket, rights),
        readClocks(listo, [number], { all: true }),
        readChatOf(listo, ticket, rights),
      ]);
      return { approvals, plan, clocks: clocks.get(number)!, ...chat };
    },
  },
};
