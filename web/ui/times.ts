import { LOCALES, type Language } from '../../core/forms';
import { dateFormat } from './dateFormat';

export type Times = {
  /** '13:12' */
  hour(t: number, zone?: string): string;
  /** 'today 13:12', 'Fri 4 Dec 13:12' */
  when(t: number, now: number): string;
  /** 'Fri 4 Dec 2026, 13:12' */
  full(t: number): string;
  /** '2 h 48 min'; from two working days on, '3 d 2 h' when a day's hours are given. */
  span(minutes: number, hoursPerDay?: number): string;
  weekday(t: number): string;
  /** '4 Dec' */
  day(t: number): string;
};

type Options = {
  timeZone: string;
  language: Language;
  t(key: string, values?: Record<string, unknown>): string;
};

const DAY_MS = 86_400_000;

/** Formats for one viewer. @example createTimes(tomas).when(due, now) // 'today 13:12' */
export function createTimes({ timeZone, language, t }: Options): Times {
  const locale = LOCALES[language];
  const format = (options: Intl.DateTimeFormatOptions, zone = timeZone) =>
    dateFormat(locale, { timeZone: zone, hourCycle: 'h23', ...options });
  const hours = format({ hour: '2-digit', minute: '2-digit' });
  const days = format({ year: 'numeric', month: '2-digit', day: '2-digit' });
  const dates = format({ weekday: 'short', day: 'numeric', month: 'short' });
  const fulls = format({
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  });
  const shortDates = format({ day: 'numeric', month: 'short' });
  const weekdays = format({ weekday: 'short' });

  function when(at: number, now: number): string {
    const time = hours.format(at);
    const isDay = (offset: number): boolean => days.format(at) === days.format(now + offset * DAY_MS);
    if (isDay(0)) return t('time/today', { time });
    if (isDay(1)) return t('time/tomorrow', { time });
    if (isDay(-1)) return t('time/yesterday', { time });
    return `${dates.format(at).replace(',', '')} ${time}`;
  }

  function span(minutes: number, hoursPerDay?: number): string {
    const whole = Math.round(minutes);
    const days_ = hoursPerDay === undefined ? 0 : Math.floor(whole / (hoursPerDay * 60));
    if (days_ >= 2) {
      const restHours = Math.floor((whole - days_ * hoursPerDay! * 60) / 60);
      const rest = restHours > 0 ? ` ${t('time/h', { n: restHours })}` : '';
      return `${t('time/d', { n: days_ })}${rest}`;
    }
    const [h, min] = [Math.floor(whole / 60), whole % 60];
    if (h === 0) return t('time/min', { n: min });
    return min === 0
      ? t('time/h', { n: h })
      : `${t('time/h', { n: h })} ${t('time/min', { n: String(min).padStart(2, '0') })}`;
  }

  return {
    hour: (at, zone) =>
      (zone === undefined ? hours : format({ hour: '2-digit', minute: '2-digit' }, zone)).format(at),
    full: (at) => fulls.format(at),
    weekday: (at) => weekdays.format(at),
    day: (at) => shortDates.format(at),
    when,
    span,
  };
}
