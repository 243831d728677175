import type { ListRow } from '../../../contract/worklists';
import type { TicketRow } from '../../../contract/tickets';
import type { ColumnName, OrderReason } from '../../../core/worklist';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';
import { useDueWords } from '../ticket/DueByHand';

const DAY_MS = 86_400_000;

/** What names a row: its ticket, and the step of it that it is. */
export const rowIdOf = ({ number, step }: TicketRow): string => (step ? `${number}-${step.id}` : `${number}`);

/** Who must move: you, nobody yet, someone, or whom it waits for. */
export function useWho(): (ticket: TicketRow) => { words: string; isYou: boolean } {
  const { t } = useWords();
  const me = useMe();
  return ({ state, heldFor, assignee, approvers, step }) => {
    if (!step && heldFor === 'approval')
      return { words: t('desk/waitsFor', { who: approvers[0] ?? t('heldFor/approval') }), isYou: false };
    if (!step && state === 'held')
      return { words: t('desk/heldFor', { whom: t(`heldFor/${heldFor!}`) }), isYou: false };
    if (!step && (state === 'done' || state === 'closed' || state === 'withdrawn'))
      return { words: t(`states/${state}`), isYou: false };
    if (!assignee) return { words: t('desk/unassigned'), isYou: false };
    return assignee.id === me.id
      ? { words: t('desk/nowYou'), isYou: true }
      : { words: assignee.name, isYou: false };
  };
}

/** Why a row stands where it does: all of it, and what its other columns do not say already. */
export function useReasonWords(): (reasons: OrderReason[]) => { short: string; whole: string } {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const brief = (at: number): string =>
    now - at < DAY_MS && times.day(at) === times.day(now) ? times.hour(at) : times.day(at);
  const say = (reason: OrderReason, form: 'short' | 'whole'): string => {
    const at = 'at' in reason ? reason.at : 'since' in reason ? reason.since : null;
    return t(`lists/reasons/${form}/${reason.kind}`, {
      when: at === null ? '' : form === 'short' ? brief(at) : times.when(at, now),
      hours: 'hours' in reason ? reason.hours : '',
      priority: 'priority' in reason ? reason.priority : '',
    });
  };
  const SAID_ELSEWHERE = new Set<OrderReason['kind']>(['past', 'due', 'priority']);
  return (reasons) => ({
    short: reasons
      .filter(({ kind }) => !SAID_ELSEWHERE.has(kind))
      .map((reason) => say(reason, 'short'))
      .join(', '),
    whole: reasons.map((reason) => say(reason, 'whole')).join(' '),
  });
}

/** What stands in a column, as text. */
export function useCellWords(): (row: ListRow, column: ColumnName) => string {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const who = useWho();
  const dueWords = useDueWords();
  return (row, column) => {
    switch (column) {
      case 'requester':
        return row.requester.name;
      case 'who':
        return who(row).words;
      case 'priority':
        return row.priority;
      case 'team':
        return local(row.team.name);
      case 'group':
        return row.groupName ?? '';
      case 'site':
        return row.site ?? '';
      case 'service':
        return local(row.service);
      case 'state':
        return row.state === 'held'
          ? t('desk/heldFor', { whom: t(`heldFor/${row.heldFor!}`) })
          : t(`states/${row.state}`);
      case 'created':
        return times.when(row.createdAt, now);
      case 'changed':
        return times.when(row.changedAt, now);
      case 'due':
        return row.due ? dueWords(row.due) : '';
      case 'progress':
        return row.progress ? local(row.progress.name) : '';
      case 'door':
        return t(`doors/${row.via}`);
      case 'standing':
        return row.standing ? t(`lists/standing/${row.standing}`) : t(`states/${row.state}`);
    }
  };
}
