import type { Fields } from '../conditions';
import { Clock } from './clock';
import { validateTarget } from './inForce';
import type { Calendars, ClockReading, ClockStretch, HistoryEvent, TargetDefinition } from './types';

const NOT_STARTED: ClockReading = {
  state: 'notStarted',
  startedAt: null,
  countedFrom: null,
  elapsed: 0,
  pausedFor: 0,
  limit: null,
  percent: null,
  dueAt: null,
  breachedAt: null,
  stoppedAt: null,
  warnings: [],
};

/**
 * Reads a clock together with the stretches it was counted by, from the opening until `now`.
 * Events after `now` are ignored; events at one instant count as one.
 */
export function replayClock(
  definition: TargetDefinition,
  calendars: Calendars,
  history: HistoryEvent[],
  now: number,
): { reading: ClockReading; stretches: ClockStretch[] } {
  validateTarget(definition, calendars);
  const opened = history[0]?.at;
  if (opened === undefined || opened > now)
    return { reading: { ...NOT_STARTED, warnings: [] }, stretches: [] };
  const clock = new Clock(definition, calendars, opened);
  const fields: Fields = {};
  const stretches: ClockStretch[] = [];
  for (let i = 0; i < history.length && history[i]!.at <= now;) {
    const s = history[i]!.at;
    for (; i < history.length && history[i]!.at === s; i++) Object.assign(fields, history[i]!.set);
    clock.enter(s, fields);
    stretches.push(clock.leave(s, Math.min(history[i]?.at ?? now, now)));
  }
  return { reading: clock.read(), stretches };
}

/**
 * Reads a target's clock on one piece of work, purely from its history.
 * @example readClock(firstAnswerIn8h, calendars, [{ at: nine, set: { state: 'received' } }], ten).percent // 12.5
 * @throws UnknownCalendar when the definition names a calendar that is not given
 */
export function readClock(
  definition: TargetDefinition,
  calendars: Calendars,
  history: HistoryEvent[],
  now: number,
): ClockReading {
  return replayClock(definition, calendars, history, now).reading;
}
