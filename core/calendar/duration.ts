import { DurationNotPositive, MalformedDuration } from './errors';

const SHAPE = /^P(?=.)(?:(\d+)D)?(?:T(?=.)(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/;

/**
 * Reads an ISO 8601 duration of days, hours, minutes and seconds as working milliseconds.
 * A day is `hoursPerDay` hours; weeks, months and years have no fixed working time and are refused.
 * @example parseDuration('P1DT8H', { hoursPerDay: 10 }) // 18 h = 64_800_000
 * @throws MalformedDuration, DurationNotPositive
 */
export function parseDuration(text: string, spec: { hoursPerDay: number }): number {
  const match = SHAPE.exec(text);
  if (!match) throw new MalformedDuration(text);
  const [days, hours, minutes, seconds] = match
    .slice(1)
    .map((part: string | undefined) => Number(part ?? 0)) as [number, number, number, number];
  const ms = Math.round((((days * spec.hoursPerDay + hours) * 60 + minutes) * 60 + seconds) * 1000);
  if (!(ms > 0)) throw new DurationNotPositive(text);
  return ms;
}
