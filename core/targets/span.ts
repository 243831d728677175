import { readDuration } from '../calendar';

/** A length of time as people type it: '1 d 8 h', '90 min', '2h30'. Days are working days of the calendar. */
const TYPED =
  /^\s*(?:(?<days>\d+)\s*d(?:ays?|ias?)?)?\s*(?:(?<hours>\d+)\s*h(?:ours?|oras?)?)?\s*(?:(?<minutes>\d+)\s*(?:m(?:in(?:utes?|utos?)?)?)?)?\s*$/iu;

/** As ISO 8601 writes it; null where it cannot be read, or is nothing. @example toIsoSpan('1 d 8 h') // 'P1DT8H' */
export function toIsoSpan(typed: string): string | null {
  const { days, hours, minutes } = TYPED.exec(typed)?.groups ?? {};
  const [d, h, min] = [days, hours, minutes].map((part) => Number(part ?? 0)) as [number, number, number];
  if (d + h + min === 0) return null;
  const time = `${h > 0 ? `${h}H` : ''}${min > 0 ? `${min}M` : ''}`;
  return `P${d > 0 ? `${d}D` : ''}${time === '' ? '' : `T${time}`}`;
}

/** The other way round. @example toTypedSpan('P1DT8H') // '1 d 8 h' */
export function toTypedSpan(iso: string): string {
  const { days = 0, hours = 0, minutes = 0 } = readDuration(iso) ?? {};
  const parts = [days > 0 && `${days} d`, hours > 0 && `${hours} h`, minutes > 0 && `${minutes} min`];
  return parts.filter(Boolean).join(' ') || iso;
}
