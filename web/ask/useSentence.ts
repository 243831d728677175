import { isPast } from '../../core/due';
import { isPastDue } from '../../core/targets';
import { getStateSentence, takesOwnWords } from '../../core/tickets';
import type { Ticket, TicketRow } from '../../contract/tickets';
import { useNow } from '../api/clock';
import { useWords } from '../messages/useWords';
import { getPromise } from '../ui/clocks';
import { useTimes } from '../ui/useTimes';

type Facts = Pick<
  TicketRow,
  'state' | 'heldFor' | 'heldUntil' | 'isDeclined' | 'ownWords' | 'assignee' | 'isTakenUp' | 'team'
> & {
  approvers: string[];
};

/** A ticket's state as one plain sentence. */
export function useSentence(): (facts: Facts) => string {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  return ({ state, heldFor, heldUntil, isDeclined, ownWords, assignee, isTakenUp, team, approvers }) => {
    if (ownWords && takesOwnWords({ heldFor, isDeclined })) return local(ownWords);
    if (isDeclined) return t('sentences/declined');
    const sentence = getStateSentence({
      state,
      heldFor,
      heldUntil,
      teamName: local(team.name),
      approverNames: approvers,
      assigneeName: assignee?.name ?? null,
      isTakenUp,
    });
    const until = sentence.params.until as number | undefined;
    return t(`sentences/${sentence.code}`, {
      ...sentence.params,
      ...(until !== undefined && { until: times.when(until, now) }),
    });
  };
}

/** When it is promised, or since when it is held; and whether that has passed. */
type Promised = Pick<TicketRow | Ticket, 'state' | 'clocks'> & { promisedAt?: number | null };

export function usePromise(): (ticket: Promised) => {
  words: string;
  isLate: boolean;
} {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(15_000);
  return ({ state, clocks, promisedAt }) => {
    const isGoing = state === 'received' || state === 'inWork' || state === 'held';
    // A plan's promise stands also while others decide.
    if (promisedAt != null && isGoing) {
      const isLate = isPast(promisedAt, now);
      return {
        words: t(isLate ? 'ask/late' : 'ask/promised', { when: times.when(promisedAt, now) }),
        isLate,
      };
    }
    const promise = getPromise(clocks);
    if (!promise || state === 'closed' || state === 'withdrawn') return { words: '', isLate: false };
    if (promise.state === 'paused') {
      const since = promise.held.at(-1)?.[0];
      return {
        words: since === undefined ? '' : t('ask/heldSince', { when: times.when(since, now) }),
        isLate: false,
      };
    }
    if (promise.dueAt === null || state === 'done') return { words: '', isLate: false };
    const isLate = isPastDue(promise, now);
    return {
      words: t(isLate ? 'ask/late' : 'ask/promised', { when: times.when(promise.dueAt, now) }),
      isLate,
    };
  };
}
