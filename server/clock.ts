/** The one seam through which the server reads the time. */
export interface Clock {
  now(): number;
}

/** The real time, or one that begins at `startsAt` and goes on from there. */
export function createClock(startsAt?: string): Clock {
  const offset = startsAt === undefined ? 0 : Date.parse(startsAt) - Date.now();
  return { now: () => Date.now() + offset };
}
