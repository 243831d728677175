import type { Fields } from '../conditions';
import { Clock } from './clock';
import { compileTarget, EVERY_QUESTION } from './compiled';
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

/** Takes over what a target asks for. @returns the questions that are to be asked again */
function apply(set: Fields, fields: Fields, asked: Record<string, number>): number {
  let questions = 0;
  for (const name in set) {
    const asking = asked[name];
    if (asking === undefined) continue;
    fields[name] = set[name];
    questions |= asking;
  }
  return questions;
}

type Replayed = { definition: TargetDefinition; calendars: Calendars; history: HistoryEvent[]; now: number };

function leave(clock: Clock, s: number, x: number, stretches: ClockStretch[] | null): void {
  const stretch = stretches && clock.describe(s, x);
  const worked = clock.leave(s, x);
  if (stretch) stretches.push({ ...stretch, worked });
}

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
  const fields: Fields = { ...target.blank };
  let s = opened;
  let isEntered = false;
  for (let i = 0; i < history.length && history[i]!.at <= now;) {
    const { at } = history[i]!;
    let questions = isEntered ? 0 : EVERY_QUESTION;
    // Events at one instant are one.
    for (; i < history.length && history[i]!.at === at; i++)
      questions |= apply(history[i]!.set, fields, asked);
    if (questions === 0) continue;
    if (isEntered) leave(clock, s, at, stretches);
    clock.enter(at, fields, questions);
    isEntered = true;
    s = at;
  }
  leave(clock, s, now, stretches);
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
