import { getOwn } from '../records';

/**
 * How a team's tickets find a person: by hand (nobody is given any), in turn, whoever has most room for what they can
 * carry, or whoever has been without new work longest.
 */
export const ROUTING_WAYS = ['byHand', 'inTurn', 'leastLoaded', 'longestIdle'] as const;
/** How a team's work finds a person. */
export type RoutingWay = (typeof ROUTING_WAYS)[number];

/** Someone who could be given work, as things are at one instant (epoch milliseconds). */
export type Candidate = {
  id: string;
  /** Says of themselves that they take tickets. */
  isAvailable: boolean;
  /** At work by their calendar, and not on leave. */
  isOnShift: boolean;
  isAway: boolean;
  /** Units that they can carry at once; null: as many as come. */
  capacity: number | null;
  /** Units that they carry now. */
  load: number;
  /** When they were last given something; null: never. */
  lastGivenAt: number | null;
  /** Levels by skill. */
  skills: Record<string, number>;
};

/** What a piece of work asks of whoever gets it. */
export type Need = { units: number; skills: { skill: string; level: number }[] };

/** Why someone is passed over. */
export type PassedOver = 'away' | 'offShift' | 'busy' | 'unskilled' | 'full';

/** Whom routing chose, and what it went by. */
export type Routed = {
  /** Who gets it; null: nobody can now. */
  personId: string | null;
  way: RoutingWay;
  /** Of those who could have had it, how many there were, and what decided. */
  couldHave: number;
  load: number | null;
  capacity: number | null;
  idleSince: number | null;
  passedOver: { id: string; why: PassedOver }[];
};

function passOver(candidate: Candidate, { units, skills }: Need): PassedOver | null {
  if (candidate.isAway) return 'away';
  if (!candidate.isOnShift) return 'offShift';
  if (!candidate.isAvailable) return 'busy';
  if (skills.some(({ skill, level }) => (getOwn(candidate.skills, skill) ?? 0) < level)) return 'unskilled';
  if (candidate.capacity !== null && candidate.load + units > candidate.capacity) return 'full';
  return null;
}

/** The share of what they can carry that they would carry; who has no limit is measured by the load itself. */
function fullness({ load, capacity }: Candidate, { units }: Need): number {
  return capacity === null ? (load + units) / 1000 : (load + units) / capacity;
}

const idleFirst = (one: Candidate, other: Candidate): number =>
  (one.lastGivenAt ?? -Infinity) - (other.lastGivenAt ?? -Infinity) || compareIds(one, other);
const compareIds = (one: Candidate, other: Candidate): number =>
  one.id < other.id ? -1 : one.id > other.id ? 1 : 0;

/** The one after the last in a fixed circle: whoever could not then, is passed over and comes again next time. */
function nextInTurn(could: Candidate[], after: string | null): Candidate {
  const circle = [...could].sort(compareIds);
  return circle.find(({ id }) => after !== null && id > after) ?? circle[0]!;
}

function choose(way: RoutingWay, could: Candidate[], need: Need, after: string | null): Candidate {
  switch (way) {
    case 'inTurn':
      return nextInTurn(could, after);
    case 'longestIdle':
      return [...could].sort(idleFirst)[0]!;
    default:
      return [...could].sort(
        (one, other) => fullness(one, need) - fullness(other, need) || idleFirst(one, other),
      )[0]!;
  }
}

/**
 * Who gets a piece of work, and why. Nothing is left to chance: the same facts give the same answer.
 * @param after who got the last one, where they go in turn
 * @example route('leastLoaded', [rui, hanna], need, null).personId // 'hanna', who carries less
 */
export function route(way: RoutingWay, candidates: Candidate[], need: Need, after: string | null): Routed {
  const judged = candidates.map((candidate) => ({ candidate, why: passOver(candidate, need) }));
  const could = judged.flatMap(({ candidate, why }) => (why === null ? [candidate] : []));
  const passedOver = judged.flatMap(({ candidate, why }) =>
    why === null ? [] : [{ id: candidate.id, why }],
  );
  const chosen = way === 'byHand' || could.length === 0 ? null : choose(way, could, need, after);
  return {
    personId: chosen?.id ?? null,
    way,
    couldHave: could.length,
    load: chosen?.load ?? null,
    capacity: chosen?.capacity ?? null,
    idleSince: chosen?.lastGivenAt ?? null,
    passedOver,
  };
}
