import { useMemo } from 'react';
import type { Due, TicketRow } from '../../../contract/tickets';
import type { ListRow } from '../../../contract/worklists';
import type { ColumnName, OrderReason } from '../../../core/worklist';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import { useWords, type Words } from '../../messages/useWords';
import type { LiveClock } from '../../ui/clocks';
import { createLeftWords, isDueNow, type LeftWords } from '../../ui/useLeftWords';
import type { Times } from '../../ui/times';
import { useTimes } from '../../ui/useTimes';
import { useDueWords } from '../ticket/DueByHand';

const DAY_MS = 86_400_000;
const SAID_ELSEWHERE = new Set<OrderReason['kind']>(['past', 'due', 'priority']);

/** What names a row: its ticket, and the step of it that it is. */
export const rowIdOf = ({ number, step }: TicketRow): string => (step ? `${number}-${step.id}` : `${number}`);

/** What rows of work say. */
export type RowWords = {
  /** Who must move: you, nobody yet, someone, or whom it waits for. */
  who(row: TicketRow): { words: string; isYou: boolean };
  /** Why a row stands where it does: all of it, and what its other columns do not say already. */
  reason(reasons: OrderReason[]): { short: string; whole: string };
  /** What stands in a column. */
  cell(row: ListRow, column: ColumnName): string;
  /** When someone said that it is due. */
  due(due: Due): string;
  /** The time left of a clock; what shortens, what is past. */
  left: LeftWords;
  /** A clock as it is read out: which, due when, and how much is left. */
  reading(live: LiveClock): string;
};

type Given = Pick<Words, 't' | 'local'> & {
  times: Times;
  meId: string;
  now: number;
  due: RowWords['due'];
};

function createRowWords({ t, local, times, meId, now, due }: Given): RowWords {
  const who: RowWords['who'] = ({ state, heldFor, assignee, approvers, step }) => {
    if (!step && heldFor === 'approval')
      return { words: t('desk/waitsFor', { who: approvers[0] ?? t('heldFor/approval') }), isYou: false };
    if (!step && state === 'held')
      return { words: t('desk/heldFor', { whom: t(`heldFor/${heldFor!}`) }), isYou: false };
    if (!step && (state === 'done' || state === 'closed' || state === 'withdrawn'))
      return { words: t(`states/${state}`), isYou: false };
    if (!assignee) return { words: t('desk/unassigned'), isYou: false };
    return assignee.id === meId
      ? { words: t('desk/nowYou'), isYou: true }
      : { words: assignee.name, isYou: false };
  };
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
  const left = createLeftWords(t, times);
  return {
    who,
    due,
    left,
    reason: (reasons) => ({
      short: reasons
        .filter(({ kind }) => !SAID_ELSEWHERE.has(kind))
        .map((reason) => say(reason, 'short'))
        .join(', '),
      whole: reasons.map((reason) => say(reason, 'whole')).join(' '),
    }),
    reading: (live) => {
      const { clock, leftMinutes, tone, hoursPerDay } = live;
      // Said as it stands in the row, which those who speak to the page see.
      if (clock.dueAt === null || leftMinutes === null || isDueNow(live))
        return `${clock.name}: ${left(live)}`;
      return t(tone === 'past' ? 'desk/readingPast' : 'desk/reading', {
        clock: clock.name,
        when: times.when(clock.dueAt, now),
        span: times.span(Math.abs(leftMinutes), hoursPerDay),
      });
    },
    cell(row, column) {
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
          return row.due ? due(row.due) : '';
        case 'progress':
          return row.progress ? local(row.progress.name) : '';
        case 'door':
          return t(`doors/${row.via}`);
        case 'mail':
        case 'phone':
        case 'department':
          return row.more[column];
        case 'estimate':
          return row.more.estimate === null ? '' : times.span(row.more.estimate);
        case 'spent':
          return row.more.spent === 0 ? '' : times.span(row.more.spent);
        case 'standing':
          return row.standing ? t(`lists/standing/${row.standing}`) : t(`states/${row.state}`);
      }
    },
  };
}

/** What rows say, made once for a list and anew each minute: a row that stays as it is need not be drawn again. */
export function useRowWords(): RowWords {
  const { t, local } = useWords();
  const times = useTimes();
  const { id: meId } = useMe();
  const now = useNow(60_000);
  const due = useDueWords();
  return useMemo(
    () => createRowWords({ t, local, times, meId, now, due }),
    [t, local, times, meId, now, due],
  );
}
