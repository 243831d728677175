/** A seeded source of chance (mulberry32), so that the demo is the same for everyone. */
export type Random = {
  next(): number;
  between(low: number, high: number): number;
  pick<T>(from: readonly T[]): T;
  chance(probability: number): boolean;
  /** Skewed positive numbers around 1, as waiting times are. */
  spread(): number;
};

export function createRandom(seed: number): Random {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  return {
    next,
    between: (low, high) => low + next() * (high - low),
    pick: (from) => from[Math.floor(next() * from.length)]!,
    chance: (probability) => next() < probability,
    spread: () => Math.exp((next() + next() + next() - 1.5) * 1.4),
  };
}
