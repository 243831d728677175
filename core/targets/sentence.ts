import type { Condition } from '../conditions';
import type { TargetDefinition } from './types';

/**
 * A promise as a sentence that people can change word by word. Where a rule says more than these words can, its part is
 * `null` and stays as it is.
 */
export type TargetSentence = {
  name: string;
  kind: TargetDefinition['kind'];
  /** For which work: nothing named means all. */
  work: StartWords | null;
  countFrom: TargetDefinition['countFrom'];
  /** With 'opened': whether time held before then is left out. */
  excludeEarlierPauses: boolean;
  /** By priority, the last for the rest; one alone is for all. */
  limits: LimitWords | null;
  /** The calendar of the team that holds it, or this one. */
  calendar: { follows: 'team' } | { calendarId: string } | null;
  pauses: PauseWords | null;
  stops: keyof typeof STOPS | null;
  resets: keyof typeof RESETS | 'never' | null;
  cancels: keyof typeof CANCELS | 'never' | 'startNoLongerHolds' | null;
  onReopen: TargetDefinition['onReopen'];
};

/** When a clock begins, as the sentence of a target says it. */
export type StartWords = {
  of: 'ticket' | 'approval';
  when: 'opened' | 'approved' | 'heldForSupplier';
  kinds: string[];
  teamIds: string[];
  serviceIds: string[];
  priorities: string[];
  withoutPlan: boolean;
};
/** For whom or what being held pauses it. */
export type PauseWords = { heldFor: string[] };
/** How long a clock has: by priority, or one for all. */
export type LimitWords = { P1: string; P2: string; P3: string; P4: string } | { all: string };

const PRIORITY_NAMES = ['P1', 'P2', 'P3', 'P4'] as const;
const is = (field: string, value: string | boolean): Condition => ({ field, op: 'is', value });
const among = (field: string, ...value: string[]): Condition => ({ field, op: 'in', value });
const all = (...conditions: Condition[]): Condition => ({ all: conditions });
const FINISHED = among('state', 'done', 'closed', 'withdrawn');
const HELD_FOR_SUPPLIER = all(is('state', 'held'), is('heldFor', 'supplier'));
const NOT_AWAITING: Condition = { not: is('heldFor', 'approval') };

/** What ends a promise. */
export const STOPS = {
  answered: is('answered', true),
  /** A person has begun with it. */
  takenUp: is('takenUp', true),
  /** Someone has it, be it that it was merely given to them. */
  taken: { field: 'assigneeId', op: 'notEmpty' },
  finished: FINISHED,
  decided: among('outcome', 'approved', 'declined'),
  supplierBack: { not: HELD_FOR_SUPPLIER },
} as const satisfies Record<string, Condition>;
/** What makes it begin anew. */
export const RESETS = {
  backInLine: is('state', 'received'),
} as const satisfies Record<string, Condition>;
/** What calls it off. */
export const CANCELS = {
  withdrawn: is('state', 'withdrawn'),
  withdrawnOrClosed: among('state', 'withdrawn', 'closed'),
  finished: FINISHED,
  decisionWithdrawn: is('outcome', 'withdrawn'),
} as const satisfies Record<string, Condition>;

const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);
function nameOf<T extends Record<string, Condition>>(
  phrases: T,
  condition: Condition,
): (keyof T & string) | null {
  const found = Object.entries(phrases).find(([, each]) => same(each, condition));
  return found ? found[0] : null;
}

/** The values that a condition asks of a field, where it asks nothing else. */
function valuesOf(condition: Condition, field: string): string[] | null {
  if (!('field' in condition) || condition.field !== field) return null;
  if (condition.op === 'is' && typeof condition.value === 'string') return [condition.value];
  return condition.op === 'in' ? condition.value.map(String) : null;
}

const LISTS = { kinds: 'kind', teamIds: 'teamId', serviceIds: 'serviceId', priorities: 'priority' } as const;
type ListName = keyof typeof LISTS;
const LIST_NAMES = Object.keys(LISTS) as ListName[];

function readStart(condition: Condition): StartWords | null {
  const parts = 'all' in condition ? condition.all : [condition];
  const words: StartWords = {
    ...{ of: 'ticket', when: 'opened', kinds: [], teamIds: [], serviceIds: [], priorities: [] },
    withoutPlan: false,
  };
  for (const part of parts) {
    const list = LIST_NAMES.find((name) => valuesOf(part, LISTS[name]) !== null && words[name].length === 0);
    if (list) words[list] = valuesOf(part, LISTS[list])!;
    else if (same(part, is('work', 'approval'))) words.of = 'approval';
    else if (same(part, NOT_AWAITING)) words.when = 'approved';
    else if (same(part, HELD_FOR_SUPPLIER)) words.when = 'heldForSupplier';
    else if (same(part, { field: 'hasPlan', op: 'isNot', value: true })) words.withoutPlan = true;
    else if (!same(part, is('work', 'ticket')) && !same(part, is('outcome', 'open'))) return null;
  }
  return words;
}

function writeStart({ of, when, withoutPlan, ...lists }: StartWords): Condition {
  const one = (values: string[], field: string): Condition =>
    values.length === 1 ? is(field, values[0]!) : among(field, ...values);
  return all(
    is('work', of),
    ...(of === 'approval' ? [is('outcome', 'open')] : []),
    ...LIST_NAMES.flatMap((name) => (lists[name].length > 0 ? [one(lists[name], LISTS[name])] : [])),
    ...(when === 'approved' ? [NOT_AWAITING] : when === 'heldForSupplier' ? [HELD_FOR_SUPPLIER] : []),
    ...(withoutPlan ? [{ field: 'hasPlan', op: 'isNot', value: true } as const] : []),
  );
}

function readLimits(limits: TargetDefinition['limits']): LimitWords | null {
  const [first] = limits;
  if (limits.length === 1 && first && !first.when) return { all: first.duration };
  const byName = new Map(
    limits.map(({ when, duration }) => [when ? valuesOf(when, 'priority')?.join() : 'rest', duration]),
  );
  const [P1, P2, P3] = ['P1', 'P2', 'P3'].map((name) => byName.get(name));
  const P4 = byName.get('rest') ?? byName.get('P4');
  return limits.length === 4 && P1 && P2 && P3 && P4 ? { P1, P2, P3, P4 } : null;
}

function writeLimits(limits: LimitWords): TargetDefinition['limits'] {
  if ('all' in limits) return [{ duration: limits.all }];
  return PRIORITY_NAMES.map((name) =>
    name === 'P4' ? { duration: limits.P4 } : { when: is('priority', name), duration: limits[name] },
  );
}

function readPause(condition: Condition | undefined): PauseWords | null {
  if (!condition) return { heldFor: [] };
  const parts = 'all' in condition ? condition.all : [];
  const [held, whom] = parts;
  const heldFor = whom ? valuesOf(whom, 'heldFor') : null;
  return parts.length === 2 && same(held, is('state', 'held')) && heldFor ? { heldFor } : null;
}

/** A definition in words, as far as the words go. `teamCalendars`: what following the team means now. */
export function toSentence(
  definition: TargetDefinition,
  teamCalendars: TargetDefinition['calendars'],
): TargetSentence {
  const { name, kind, startWhen, countFrom, excludeEarlierPauses, limits, calendars, cancelWhen } =
    definition;
  const { pauseWhen, stopWhen, resetWhen, onReopen } = definition;
  const [only] = calendars;
  return {
    ...{ name, kind, countFrom, excludeEarlierPauses, onReopen },
    work: readStart(startWhen),
    limits: readLimits(limits),
    calendar:
      calendars.length === 1 && only && !only.when
        ? { calendarId: only.calendarId }
        : same(calendars, teamCalendars)
          ? { follows: 'team' }
          : null,
    pauses: readPause(pauseWhen),
    stops: nameOf(STOPS, stopWhen),
    resets: resetWhen ? nameOf(RESETS, resetWhen) : 'never',
    cancels: typeof cancelWhen === 'string' ? cancelWhen : nameOf(CANCELS, cancelWhen),
  };
}

/** The definition that a sentence says; what the sentence leaves unsaid stays as it was. */
export function toDefinition(
  sentence: TargetSentence,
  before: TargetDefinition,
  teamCalendars: TargetDefinition['calendars'],
): TargetDefinition {
  const {
    name,
    kind,
    work,
    countFrom,
    excludeEarlierPauses,
    limits,
    calendar,
    pauses,
    stops,
    resets,
    cancels,
  } = sentence;
  const { pauseWhen: pausedBefore, resetWhen: resetBefore, ...kept } = before;
  const pauseWhen =
    pauses === null
      ? pausedBefore
      : pauses.heldFor.length > 0
        ? all(is('state', 'held'), among('heldFor', ...pauses.heldFor))
        : undefined;
  const resetWhen = resets === null ? resetBefore : resets === 'never' ? undefined : RESETS[resets];
  return {
    ...kept,
    ...{ name, kind, countFrom, excludeEarlierPauses, onReopen: sentence.onReopen },
    ...(work && { startWhen: writeStart(work) }),
    ...(limits && { limits: writeLimits(limits) }),
    ...(calendar && {
      calendars: 'calendarId' in calendar ? [{ calendarId: calendar.calendarId }] : teamCalendars,
    }),
    ...(pauseWhen && { pauseWhen }),
    ...(stops && { stopWhen: STOPS[stops] }),
    ...(resetWhen && { resetWhen }),
    ...(cancels && {
      cancelWhen: cancels === 'never' || cancels === 'startNoLongerHolds' ? cancels : CANCELS[cancels],
    }),
  };
}
