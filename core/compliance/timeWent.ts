import { getOwn, setOwn } from '../records';
import type { Fields } from '../conditions';
import { reckonClock, type Calendars, type HistoryEvent, type TargetDefinition } from '../targets';

/**
 * Where the time of a clock went, from where it counts to its end, in ms. own: someone worked on it. waited: nobody had it
 * yet. held: by for whom or what. outside: out of hours. The first two add up to what was counted.
 */
export type TimeWent = { own: number; waited: number; held: Record<string, number>; outside: number };

/** The fields as they were in a span; it lies between two events. */
function fieldsAt(history: HistoryEvent[], at: number): Fields {
  const fields: Fields = {};
  for (const event of history) {
    if (event.at > at) break;
    Object.assign(fields, event.set);
  }
  return fields;
}

/**
 * Where a clock's time went by its own breakdown: with someone, waiting, held by what for, and outside working time;
 * in ms. @throws what `reckonClock` throws
 */
export function whereTimeWent(
  definition: TargetDefinition,
  calendars: Calendars,
  history: HistoryEvent[],
  now: number,
): TimeWent {
  const went: TimeWent = { own: 0, waited: 0, held: {}, outside: 0 };
  const instants = history.map(({ at }) => at);
  const { reading, rows } = reckonClock(definition, calendars, history, now);
  const until = reading.stoppedAt ?? now;
  for (const { from, to, kind, calendarId } of rows) {
    // One row may span events that did not change the clock, but who had the ticket.
    const cuts = [from, ...instants.filter((at) => at > from && at < to), Math.min(to, until)];
    for (let i = 1; i < cuts.length; i++) {
      const [a, b] = [cuts[i - 1]!, cuts[i]!];
      if (b <= a) continue;
      const fields = fieldsAt(history, a);
      const worked = calendarId === null ? 0 : calendars[calendarId]!.workingBetween(a, b);
      if (kind === 'counted') {
        if (typeof fields.assigneeId === 'string') went.own += worked;
        else went.waited += worked;
      } else if (kind === 'held') {
        const whom = typeof fields.heldFor === 'string' ? fields.heldFor : 'other';
        setOwn(went.held, whom, (getOwn(went.held, whom) ?? 0) + worked);
      } else if (kind === 'outsideHours') went.outside += b - a;
    }
  }
  return went;
}
