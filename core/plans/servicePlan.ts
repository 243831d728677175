import { getOwn } from '../records';
import { Temporal } from 'temporal-polyfill';
import type { Needs, Silence, StepApproverRef } from '../approvals';
import { compileCalendar, parseDuration, WEEKDAYS, type CompiledCalendar } from '../calendar';
import type { Condition, Fields } from '../conditions';
import type { LocalText } from '../forms';
import type { Plan, PlanStep } from './types';

/** What an automatic step does: waits for its time, sets a field, or asks an outside address and waits for its answer. */
export type AutomaticAction =
  | { do: 'wait' }
  | { do: 'setField'; field: string; value: string | number | boolean }
  | { do: 'send'; address: string };

type Common = {
  id: string;
  leg: string;
  name: LocalText;
  after?: string[];
  when?: Condition;
  /** Working time that it usually takes, as an ISO 8601 duration; absent: none. */
  effort?: string;
  /** Not before so many days before a date that the form asks for. */
  notBefore?: { field: string; daysBefore: number };
};

/** A step as a service defines it: who does it, by name. */
export type ServiceStep = Common &
  (
    | { kind: 'task'; teamId: string; groupId?: string; checklist?: LocalText[] }
    | {
        kind: 'approval';
        refs: StepApproverRef[];
        needs: Needs;
        declineBy: 'any' | 'outOfReach';
        silence?: Silence;
      }
    /** Waits until a lead of the team lets it go ahead, in its turn among the others. */
    | { kind: 'ranking'; teamId: string }
    | { kind: 'automatic'; action: AutomaticAction }
  );

/** `doneWords`: what the requester reads when all of it is done. */
export type ServicePlan = {
  doneWords?: LocalText;
  legs: { id: string; name: LocalText }[];
  steps: ServiceStep[];
};

/** The blanks of the words at the end, beside the questions of the form: they are filled from the ticket. */
export const END_BLANKS = ['name', 'number', 'title', 'service', 'team', 'place'] as const;

/** Where steps are counted that nobody has to be at work for. */
export const ROUND_THE_CLOCK = 'round the clock';

const roundTheClock = compileCalendar({
  ...{ name: 'Round the clock', timeZone: 'UTC', hoursPerDay: 24, exceptions: [] },
  weekly: Object.fromEntries(WEEKDAYS.map((day) => [day, [{ from: '00:00', to: '24:00' }]])),
});

/** The calendars of an organisation with the one that never closes. */
export function withRoundTheClock(
  calendars: Record<string, CompiledCalendar>,
): Record<string, CompiledCalendar> {
  return { ...calendars, [ROUND_THE_CLOCK]: roundTheClock };
}

type Surroundings = {
  calendars: Record<string, CompiledCalendar>;
  /** The calendar of a team; approvals are given on that of the service's team. */
  calendarOf: (teamId: string) => string;
  ownTeamId: string;
  fields: Fields;
};

function startOf(date: unknown, daysBefore: number, timeZone: string): number | undefined {
  if (typeof date !== 'string' || !/^\d{4}-\d\d-\d\d$/.test(date)) return undefined;
  const day = Temporal.PlainDate.from(date).subtract({ days: daysBefore });
  return day.toZonedDateTime({ timeZone }).epochMilliseconds;
}

function calendarIdOf(step: ServiceStep, { calendarOf, ownTeamId }: Surroundings): string {
  if (step.kind === 'automatic') return ROUND_THE_CLOCK;
  return calendarOf(step.kind === 'approval' ? ownTeamId : step.teamId);
}

/** A service's plan as it can be computed with, on its teams' calendars and with the dates that the form was given. */
export function toPlan({ legs, steps }: ServicePlan, surroundings: Surroundings): Plan {
  const { calendars, fields } = surroundings;
  return {
    legs: legs.map(({ id }) => id),
    steps: steps.map((step): PlanStep => {
      const calendarId = calendarIdOf(step, surroundings);
      const { hoursPerDay, timeZone } = calendars[calendarId]!.spec;
      const from =
        step.notBefore && startOf(getOwn(fields, step.notBefore.field), step.notBefore.daysBefore, timeZone);
      return {
        ...{ id: step.id, leg: step.leg, kind: step.kind, calendarId },
        effort: step.effort === undefined ? 0 : parseDuration(step.effort, { hoursPerDay }),
        ...(step.after && { after: step.after }),
        ...(step.when && { when: step.when }),
        ...(from !== undefined && { notBefore: from }),
      };
    }),
  };
}
