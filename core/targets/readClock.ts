import type { Fields } from '../conditions';
import { Clock } from './clock';
import { compileTarget } from './compiled';
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

/** Takes over what a target asks for. @returns whether an event changes anything of it */
function apply(set: Fields, fields: Fields, asked: Set<string>): boolean {
  let isTouched = false;
  for (const name in set)
    if (asked.has(name)) {
      fields[name] = set[name];
      isTouched = true;
    }
  return isTouched;
}

type Replayed = { definition: TargetDefinition; calendars: Calendars; history: HistoryEvent[]; now: number };

/** Lets a clock live through its history, and tells of each stretch to who wants to know. */
function replay(
  { definition, calendars, history, now }: Replayed,
  stretches: ClockStretch[] | null,
): ClockReading {
  validateTarget(definition, calendars);
  const opened = history[0]?.at;
  if (opened === undefined || opened > now) return { ...NOT_STARTED, warnings: [] };
  const target = compileTarget(definition);
  const { asked } = target;
  const clock = new Clock(target, calendars, opened);
  const fields: Fields = {};
  function leave(s: number, x: number): void {
    const stretch = stretches && clock.describe(s, x);
    const worked = clock.leave(s, x);
    if (stretch) stretches.push({ ...stretch, worked });
  }
  let s = opened;
  let isEntered = false;
  for (let i = 0; i < history.length && history[i]!.at <= now;) {
    const { at } = history[i]!;
    let isTouched = !isEntered;
    // Events at one instant are one.
    for (; i < history.length && history[i]!.at === at; i++)
      isTouched = apply(history[i]!.set, fields, asked) || isTouched;
    if (!isTouched) continue;
    if (isEntered) leave(s, at);
    clock.enter(at, fields);
    isEntered = true;
    s = at;
  }
  leave(s, now);
  return clock.read();
}

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
  const stretches: ClockStretch[] = [];
  return { reading: replay({ definition, calendars, history, now }, stretches), stretches };
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
  return replay({ definition, calendars, history, now }, null);
}
