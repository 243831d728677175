import type { TicketRow } from '../../../contract/tickets';
import type { CompiledCalendar } from '../../../core/calendar';
import { toneOfDue } from '../../../core/due';
import type { LiveClock } from '../../ui/clocks';

const MINUTE = 60_000;

/** A step drawn like a clock: how long until it is needed, so that the plan's promise holds. */
export function liveOfStep(
  { id, neededBy }: NonNullable<TicketRow['step']>,
  name: string,
  calendar: CompiledCalendar | undefined,
  now: number,
): LiveClock {
  const left = calendar ? calendar.workingBetween(now, neededBy) : null;
  const leftMinutes = left === null ? null : Math.trunc(left / MINUTE);
  return {
    clock: {
      ...{ targetId: id, work: `step:${id}`, name, kind: 'operationalLevel', measures: 'step' },
      ...{ state: 'running', countedFrom: null, elapsed: 0, limit: null, dueAt: neededBy },
      ...{ breachedAt: null, stoppedAt: null, calendarId: null, held: [] },
    },
    left,
    usedMinutes: null,
    leftMinutes,
    limitMinutes: null,
    tone: toneOfDue(neededBy, left, now),
    hoursPerDay: calendar?.spec.hoursPerDay,
  };
}
