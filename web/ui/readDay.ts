import type { Language } from '../../core/forms';

const ISO = /^(\d{4})-(\d{1,2})-(\d{1,2})$/;
/** Day, month and perhaps year, as people here write them: 24.12., 24/12/26, 24 12 2026. */
const IN_FIGURES = /^(\d{1,2})\s*[./ -]\s*(\d{1,2})\.?(?:\s*[./ -]?\s*(\d{2}|\d{4}))?$/;
/** 24 Dec, 24 de dezembro de 2026. */
const WITH_WORD = /^(\d{1,2})\.?\s+(?:de\s+)?(\p{L}{3,})\.?(?:,?\s+(?:de\s+)?(\d{4}))?$/u;
const MONTHS = 12;
const DAY_MS = 86_400_000;

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** The number of a month by its name, or by the beginning of it; 0: there is none, or several. */
function monthOf(word: string, language: Language): number {
  const format = new Intl.DateTimeFormat(language, { month: 'long', timeZone: 'UTC' });
  const found = Array.from({ length: MONTHS }, (_, i) => i + 1).filter((month) =>
    plain(format.format(Date.UTC(2026, month - 1, 1))).startsWith(plain(word)),
  );
  return found.length === 1 ? found[0]! : 0;
}

/** A day that there is, as YYYY-MM-DD, or null. */
function dayOf(year: number, month: number, day: number): string | null {
  const at = new Date(Date.UTC(year, month - 1, day));
  return at.getUTCMonth() === month - 1 && at.getUTCDate() === day ? at.toISOString().slice(0, 10) : null;
}

/** A day without a year is the one nearest to today. */
function nearest(month: number, day: number, today: string): string | null {
  const year = Number(today.slice(0, 4));
  const away = (text: string): number => Math.abs(Date.parse(text) - Date.parse(today)) / DAY_MS;
  const days = [year - 1, year, year + 1].flatMap((each) => dayOf(each, month, day) ?? []);
  return days.sort((a, b) => away(a) - away(b))[0] ?? null;
}

/**
 * The day that is typed, in figures (day before month) or with the month's name.
 * @param today YYYY-MM-DD
 * @returns YYYY-MM-DD; null where it is none, or not whole yet
 * @example readDay('24.12.', { language: 'en', today: '2026-11-30' }) // '2026-12-24'
 */
export function readDay(
  typed: string,
  { language, today }: { language: Language; today: string },
): string | null {
  const text = typed.trim();
  const iso = ISO.exec(text);
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const found = IN_FIGURES.exec(text) ?? WITH_WORD.exec(text);
  if (!found) return null;
  const [, day, second, year] = found;
  const month = /^\d+$/.test(second!) ? Number(second) : monthOf(second!, language);
  if (year === undefined) return nearest(month, Number(day), today);
  return dayOf(year.length === 2 ? 2_000 + Number(year) : Number(year), month, Number(day));
}
