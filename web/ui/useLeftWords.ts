import { useMemo } from 'react';
import type { LiveClock } from '../../core/targets';
import { useWords, type Words } from '../messages/useWords';
import type { Times } from './times';
import { useTimes } from './useTimes';

/** The time left of a clock; what shortens, what is past. */
export type LeftWords = (live: LiveClock | null, isShort?: boolean) => string;

/** Past due, by less than a minute. */
export const isDueNow = ({ tone, clock, leftMinutes }: LiveClock): boolean =>
  tone === 'past' && clock.state === 'running' && leftMinutes !== null && leftMinutes > -1;

/** The words of every clock that is going, wherever it stands. */
export function createLeftWords(t: Words['t'], times: Times): LeftWords {
  return (live, isShort = false) => {
    if (!live) return t('desk/noClock');
    const { leftMinutes, tone, clock, hoursPerDay } = live;
    // Its calendar is not here yet, or it has no limit.
    if (leftMinutes === null) return clock.dueAt === null ? '' : '…';
    if (clock.state === 'paused') return t('desk/paused', { span: times.span(leftMinutes, hoursPerDay) });
    if (isDueNow(live)) return t('time/dueNow');
    if (tone === 'past')
      return t(isShort ? 'time/pastShort' : 'time/past', {
        span: times.span(Math.max(0, -leftMinutes), hoursPerDay),
      });
    return times.span(leftMinutes, hoursPerDay);
  };
}

export function useLeftWords(): LeftWords {
  const { t } = useWords();
  const times = useTimes();
  return useMemo(() => createLeftWords(t, times), [t, times]);
}
