import { DurationNotPositive, MalformedDuration } from './errors';

/** How an ISO 8601 duration of days, hours, minutes and seconds is written. */
export const DURATION_SHAPE = /^P(?=.)(?:(\d+)D)?(?:T(?=.)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/;

/** A length of time by its parts; a day is as long as its calendar says. */
export type Duration = { days: number; hours: number; minutes: number; seconds: number };

/**
 * The parts of an ISO 8601 duration; null where it is none, or of weeks, months or years, which have no fixed working time.
 * @example readDuration('P1DT8H') // { days: 1, hours: 8, minutes: 0, seconds: 0 }
 */
export function readDuration(text: string): Duration | null {
  const match = DURATION_SHAPE.exec(text);
  if (!match) return null;
  const [days, hours, minutes, seconds] = match
    .slice(1)
    .map((part: string | undefined) => Number(part ?? 0)) as [number, number, number, number];
  return { days, hours, minutes, seconds };
}

/**
 * Reads an ISO 8601 duration of days, hours, minutes and seconds as working milliseconds.
 * A day is `hoursPerDay` hours; weeks, months and years have no fixed working time and are refused.
 * @example parseDuration('P1DT8H', { hoursPerDay: 10 }) // 18 h = 64_800_000
 * @throws MalformedDuration, DurationNotPositive
 */
export function parseDuration(text: string, spec: { hoursPerDay: number }): number {
  const parts = readDuration(text);
  if (!parts) throw new MalformedDuration(text);
  const { days, hours, minutes, seconds } = parts;
  const ms = Math.round((((days * spec.hoursPerDay + hours) * 60 + minutes) * 60 + seconds) * 1000);
  if (!(ms > 0)) throw new DurationNotPositive(text);
  return ms;
}
