import { getOwn } from '../records';
import { route, type Candidate, type Need, type Routed } from './route';

/** What is known of a line at one instant; times in minutes. */
export type LineFacts = {
  /** How many wait before this one. */
  ahead: number;
  /** Conversations that those who are there can have at once. */
  places: number;
  /** Of these, how many are free now. */
  free: number;
  /** How long one takes, from those of late. */
  handling: number;
};

/** How long someone will wait: on average, and so that four of five wait less; null: nobody is there. */
export type ExpectedWait = { mean: number; most: number } | null;

const SHARE = 0.8;

/** The share of Erlang's distribution of `steps` steps at a rate that lies below t. */
function erlangBelow(steps: number, rate: number, t: number): number {
  let term = 1;
  let sum = 1;
  for (let i = 1; i < steps; i++) {
    term *= (rate * t) / i;
    sum += term;
  }
  return 1 - Math.exp(-rate * t) * sum;
}

/**
 * How long the next in a line will wait. Where a place is free, not at all. Else as many conversations have to end as
 * stand before them and their own: each end comes after a `places`-th of what one takes.
 * @example expectWait({ ahead: 2, places: 4, free: 0, handling: 8 })!.mean // 6: three ends, one every 2 min
 */
export function expectWait({ ahead, places, free, handling }: LineFacts): ExpectedWait {
  if (places === 0) return null;
  const steps = ahead + 1 - free;
  if (steps <= 0) return { mean: 0, most: 0 };
  const rate = places / handling;
  let [low, high] = [0, steps / rate];
  while (erlangBelow(steps, rate, high) < SHARE) high *= 2;
  while (high - low > 1e-6 * high) {
    const middle = (low + high) / 2;
    if (erlangBelow(steps, rate, middle) < SHARE) low = middle;
    else high = middle;
  }
  return { mean: steps / rate, most: high };
}

/** What a line asks of an agent: one conversation's room, and the skill that it names, if it does. */
export function needOfLine(skill: string | null): Need {
  return { units: 1, skills: skill === null ? [] : [{ skill, level: 1 }] };
}

/** Of those who could have it: who knows it best, and of these the one who has been without a new one longest. */
function chooseBest(candidates: Candidate[], skill: string | null): Routed {
  const need = needOfLine(skill);
  const could = route('longestIdle', candidates, need, null);
  if (skill === null || could.personId === null) return could;
  const passed = new Set(could.passedOver.map(({ id }) => id));
  const able = candidates.filter(({ id }) => !passed.has(id));
  const best = Math.max(...able.map(({ skills }) => getOwn(skills, skill) ?? 0));
  return route(
    'longestIdle',
    able.filter(({ skills }) => (getOwn(skills, skill) ?? 0) === best),
    need,
    null,
  );
}

/**
 * To whom a conversation is offered: to the best of those who can have one more and were not offered it before. When all
 * of them were, it is offered to nobody, and stays in the line for whoever takes it.
 */
export function chooseForOffer(
  candidates: Candidate[],
  skill: string | null,
  passedOver: readonly string[],
): Routed {
  return chooseBest(
    candidates.filter(({ id }) => !passedOver.includes(id)),
    skill,
  );
}
