import type { Condition, Scalar } from '../conditions';
import { sayDue } from './due';

/** For whom, and when, the words of a condition that stand for something are read. */
export type ListReader = {
  viewerId: string;
  teamIds: string[];
  /** The groups of those teams that the viewer is in. */
  groupIds: string[];
  now: number;
  /** The first instant of the viewer's day, and the first of the next. */
  dayStart: number;
  dayEnd: number;
};

/** Stands in a condition for whoever looks at the list. */
export const ME = '@me';
/** Stands in a condition for the teams of whoever looks at the list. */
export const MY_TEAMS = '@myTeams';
/** Stands in a condition for the groups of whoever looks at the list. */
export const MY_GROUPS = '@myGroups';

const DAY_MS = 86_400_000;
const SPAN_MS: Record<string, number> = { m: 60_000, h: 3_600_000, d: DAY_MS };

/** An instant as a condition says it, relative to the present one. */
const INSTANT = /^@(now|dayStart|dayEnd)(?:([+-])(\d{1,5})([mhd]))?$/;

/** Whether a value is an instant said from the present one. @example isRelativeInstant('@now-2h') // true */
export function isRelativeInstant(value: unknown): value is string {
  return typeof value === 'string' && INSTANT.test(value);
}

function readInstant(value: string, reader: ListReader): number {
  const [, from, sign, count, unit] = INSTANT.exec(value)!;
  const span = sign ? Number(`${sign}1`) * Number(count) * SPAN_MS[unit!]! : 0;
  return reader[from as 'now' | 'dayStart' | 'dayEnd'] + span;
}

function readValue(value: Scalar, reader: ListReader): Scalar {
  if (value === ME) return reader.viewerId;
  return isRelativeInstant(value) ? readInstant(value, reader) : value;
}

/**
 * A condition with what stands for something said outright: me, my teams, now, the end of my day.
 * @example resolveCondition({ field: 'assigneeId', op: 'is', value: '@me' }, reader) // … value: 'bia'
 */
export function resolveCondition(condition: Condition, reader: ListReader): Condition {
  if ('all' in condition) return { all: condition.all.map((part) => resolveCondition(part, reader)) };
  if ('any' in condition) return { any: condition.any.map((part) => resolveCondition(part, reader)) };
  if ('not' in condition) return { not: resolveCondition(condition.not, reader) };
  const due = sayDue(condition);
  if (due) return resolveCondition(due, reader);
  if (!('value' in condition)) return condition;
  if (condition.op === 'in' || condition.op === 'notIn')
    return {
      ...condition,
      value: condition.value.flatMap((value) => {
        if (value === MY_TEAMS) return reader.teamIds;
        return value === MY_GROUPS ? reader.groupIds : [readValue(value, reader) as string | number | null];
      }),
    };
  return { ...condition, value: readValue(condition.value as Scalar, reader) } as Condition;
}
