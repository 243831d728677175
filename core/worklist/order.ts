import type { Priority } from '../tickets';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** What may stand before what falls due sooner: hours of head start, which a team's lead sets. */
export type OrderWeights = {
  priority: Record<Priority, number>;
  /** While the requester waits for a word. */
  waiting: number;
  /** For someone who goes first. */
  goesFirst: number;
};

/** What may stand before what falls due sooner, in hours, where a lead has not said otherwise. */
export const DEFAULT_WEIGHTS: OrderWeights = {
  priority: { P1: 24, P2: 8, P3: 2, P4: 0 },
  waiting: 2,
  goesFirst: 4,
};

/** The most hours that one weight may be: more, and what is due would no longer count. */
export const MOST_WEIGHT = 96;

/** However late a promise is, after so many days open a piece of work counts as due. */
export const AGED_AFTER_MS = 14 * DAY_MS;

/** What the place of a piece of work in the order rests on. Instants are epoch milliseconds. */
export type Placed = {
  priority: Priority;
  createdAt: number;
  /** When its tightest clock falls due; absent: none runs. */
  dueAt: number | null;
  /** Since when the requester waits for a word. */
  waitsSince: number | null;
  goesFirst: boolean;
};

/** Milliseconds by which it stands before others that fall due at the same instant. */
export function getHeadStart(
  weights: OrderWeights,
  { priority, waitsSince, goesFirst }: Pick<Placed, 'priority' | 'waitsSince' | 'goesFirst'>,
): number {
  const hours =
    weights.priority[priority] +
    (waitsSince === null ? 0 : weights.waiting) +
    (goesFirst ? weights.goesFirst : 0);
  return hours * HOUR_MS;
}

/** When it counts as due: by its tightest clock, or by its age if that is sooner. */
function getPressing({ createdAt, dueAt }: Pick<Placed, 'createdAt' | 'dueAt'>): number {
  return Math.min(dueAt ?? Infinity, createdAt + AGED_AFTER_MS);
}

/**
 * The instant by which the order of "next up" goes: what has the earliest moves first. It rests on instants alone, not
 * on the present one, so that the order of two pieces of work changes only when something happens to one of them, and
 * an index can keep it.
 *
 * Laws (tested): of two that are otherwise alike, the one due sooner, of higher priority, whose requester waits, or
 * whose requester goes first never stands below the other; and nothing starves: what is opened later than a piece of
 * work's age limit by more than the largest head start stands below it, whatever it is.
 * @example getMoveBy(DEFAULT_WEIGHTS, { priority: 'P1', dueAt: noon, … }) // noon of the day before
 */
export function getMoveBy(weights: OrderWeights, placed: Placed): number {
  return getPressing(placed) - getHeadStart(weights, placed);
}

/** Why something stands where it does; hours are those of its head start. */
export type OrderReason =
  | { kind: 'past' | 'due'; at: number }
  | { kind: 'aged'; since: number }
  | { kind: 'priority'; priority: Priority; hours: number }
  | { kind: 'waiting'; since: number; hours: number }
  | { kind: 'goesFirst'; hours: number };

/** The reasons for a place, those that weigh most first: what is past or due soonest, then each head start. */
export function explainPlace(weights: OrderWeights, placed: Placed, now: number): OrderReason[] {
  const { priority, createdAt, dueAt, waitsSince, goesFirst } = placed;
  const pressing: OrderReason =
    dueAt !== null && dueAt <= createdAt + AGED_AFTER_MS
      ? { kind: dueAt <= now ? 'past' : 'due', at: dueAt }
      : { kind: 'aged', since: createdAt };
  const heads: Extract<OrderReason, { hours: number }>[] = [
    { kind: 'priority', priority, hours: weights.priority[priority] },
    ...(waitsSince === null ? [] : [{ kind: 'waiting' as const, since: waitsSince, hours: weights.waiting }]),
    ...(goesFirst ? [{ kind: 'goesFirst' as const, hours: weights.goesFirst }] : []),
  ];
  return [pressing, ...heads.filter(({ hours }) => hours > 0).sort((a, b) => b.hours - a.hours)];
}
