/** The parts of a recurrence rule by whole days (RFC 5545, 3.3.10); years, months and days as numbers, days of the week from Monday 0. */
export type Rule = {
  freq: 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY';
  interval: number;
  count: number | null;
  /** The last day on which it may fall, as a day number; null: without end. */
  until: number | null;
  byMonth: number[];
  byWeekNo: number[];
  byYearDay: number[];
  byMonthDay: number[];
  byDay: { day: number; nth: number }[];
  bySetPos: number[];
  weekStart: number;
};

const DAY_MS = 86_400_000;
const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

/** A date as the number of days since 1970-01-01, and back: reckoning with numbers is quick. */
export const toDay = (year: number, month: number, day: number): number => {
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  return date.getTime() / DAY_MS;
};
const weekdayOf = (day: number): number => (((day + 3) % 7) + 7) % 7;

function numbers(text: string | undefined, least: number, most: number): number[] {
  if (text === undefined) return [];
  return text.split(',').map((part) => {
    const value = Number(part);
    if (!/^[+-]?\d{1,3}$/.test(part) || value === 0 || value < least || value > most)
      throw new RangeError(part);
    return value;
  });
}

function readDays(text: string | undefined): Rule['byDay'] {
  if (text === undefined) return [];
  return text.split(',').map((part) => {
    const [, nth = '0', name] = /^([+-]?\d{1,2})?([A-Z]{2})$/.exec(part) ?? [];
    const day = WEEKDAYS.indexOf(name ?? '');
    if (day === -1 || Math.abs(Number(nth)) > 53) throw new RangeError(part);
    return { day, nth: Number(nth) };
  });
}

const KNOWN = new Set(
  'FREQ INTERVAL COUNT UNTIL BYMONTH BYWEEKNO BYYEARDAY BYMONTHDAY BYDAY BYSETPOS WKST'.split(' '),
);
const MOST_COUNT = 100_000;

/**
 * Reads a rule. Rules by the hour, the minute or the second say nothing of whole days and are refused.
 * @throws RangeError with the part that is wrong
 */
export function parseRule(text: string): Rule {
  const parts = new Map(
    text
      .toUpperCase()
      .split(';')
      .filter((part) => part !== '')
      .map((part): [string, string] => {
        const [name = '', value = ''] = part.split('=', 2);
        return [name, value];
      }),
  );
  for (const [name] of parts) if (!KNOWN.has(name)) throw new RangeError(name);
  const freq = parts.get('FREQ') ?? '';
  if (freq !== 'DAILY' && freq !== 'WEEKLY' && freq !== 'MONTHLY' && freq !== 'YEARLY')
    throw new RangeError(freq);
  const [interval = 1] = numbers(parts.get('INTERVAL'), 1, 999);
  const count = parts.get('COUNT');
  if (count !== undefined && (!/^\d{1,6}$/.test(count) || Number(count) > MOST_COUNT))
    throw new RangeError(count);
  const until = parts.get('UNTIL');
  const [, year, month, day] = /^(\d{4})(\d\d)(\d\d)(?:T\d{6}Z?)?$/.exec(until ?? '') ?? [];
  if (until !== undefined && day === undefined) throw new RangeError(until);
  const [start = { day: 0, nth: 0 }] = readDays(parts.get('WKST'));
  return {
    ...{ freq, interval, count: count === undefined ? null : Number(count) },
    until: until === undefined ? null : toDay(Number(year), Number(month), Number(day)),
    byMonth: numbers(parts.get('BYMONTH'), 1, 12),
    byWeekNo: numbers(parts.get('BYWEEKNO'), -53, 53),
    byYearDay: numbers(parts.get('BYYEARDAY'), -366, 366),
    byMonthDay: numbers(parts.get('BYMONTHDAY'), -31, 31),
    byDay: readDays(parts.get('BYDAY')),
    bySetPos: numbers(parts.get('BYSETPOS'), -366, 366),
    weekStart: start.day,
  };
}

type Date_ = { day: number; year: number; month: number; date: number };

function dateOf(day: number): Date_ {
  const at = new Date(day * DAY_MS);
  return { day, year: at.getUTCFullYear(), month: at.getUTCMonth() + 1, date: at.getUTCDate() };
}

const monthLength = (year: number, month: number): number =>
  toDay(year, month + 1, 1) - toDay(year, month, 1);
/** Where week 1 of a year begins: the first that has four of its days. */
function firstWeek(year: number, weekStart: number): number {
  const first = toDay(year, 1, 1);
  const offset = (weekdayOf(first) - weekStart + 7) % 7;
  return offset <= 3 ? first - offset : first + 7 - offset;
}

/** What a rule does not say is what its first day is. */
function completed(rule: Rule, start: Date_): Rule {
  const { freq, byWeekNo, byYearDay, byMonthDay, byDay, byMonth } = rule;
  const isDaySaid = byYearDay.length + byMonthDay.length + byDay.length > 0;
  if (isDaySaid || freq === 'DAILY') return rule;
  if (freq === 'WEEKLY' || byWeekNo.length > 0)
    return { ...rule, byDay: [{ day: weekdayOf(start.day), nth: 0 }] };
  if (freq === 'MONTHLY' || byMonth.length > 0) return { ...rule, byMonthDay: [start.date] };
  return { ...rule, byMonth: [start.month], byMonthDay: [start.date] };
}

const isAmong = (wanted: number[], value: number, length: number): boolean =>
  wanted.some((each) => (each > 0 ? each === value : length + 1 + each === value));

function isOnDay(rule: Rule, { day, year, month, date }: Date_): boolean {
  const { freq, byDay, byMonth, byWeekNo } = rule;
  const weekday = weekdayOf(day);
  const ofMonth = freq === 'MONTHLY' || (freq === 'YEARLY' && byMonth.length > 0);
  const hasOrdinals = freq === 'MONTHLY' || (freq === 'YEARLY' && byWeekNo.length === 0);
  const [place, length] = ofMonth
    ? [date, monthLength(year, month)]
    : [day - toDay(year, 1, 1) + 1, toDay(year + 1, 1, 1) - toDay(year, 1, 1)];
  return byDay.some(({ day: wanted, nth }) => {
    if (wanted !== weekday) return false;
    if (nth === 0 || !hasOrdinals) return true;
    return nth > 0 ? Math.ceil(place / 7) === nth : Math.ceil((length - place + 1) / 7) === -nth;
  });
}

function meets(rule: Rule, at: Date_): boolean {
  const { byMonth, byWeekNo, byYearDay, byMonthDay, byDay, weekStart } = rule;
  const { day, year, month, date } = at;
  if (byMonth.length > 0 && !byMonth.includes(month)) return false;
  if (byMonthDay.length > 0 && !isAmong(byMonthDay, date, monthLength(year, month))) return false;
  if (byDay.length > 0 && !isOnDay(rule, at)) return false;
  if (byYearDay.length > 0) {
    const first = toDay(year, 1, 1);
    if (!isAmong(byYearDay, day - first + 1, toDay(year + 1, 1, 1) - first)) return false;
  }
  if (byWeekNo.length > 0) {
    const from = firstWeek(year, weekStart);
    const weeks = (firstWeek(year + 1, weekStart) - from) / 7;
    if (day < from || day >= from + weeks * 7) return false;
    if (!isAmong(byWeekNo, Math.floor((day - from) / 7) + 1, weeks)) return false;
  }
  return true;
}

/** The first day of the n-th period after the one that a day lies in, and of the one that follows it. */
function periodOf({ freq, interval, weekStart }: Rule, start: Date_, n: number): [from: number, to: number] {
  const by = n * interval;
  switch (freq) {
    case 'DAILY':
      return [start.day + by, start.day + by + 1];
    case 'WEEKLY': {
      const week = start.day - ((weekdayOf(start.day) - weekStart + 7) % 7) + by * 7;
      return [week, week + 7];
    }
    case 'MONTHLY':
      return [toDay(start.year, start.month + by, 1), toDay(start.year, start.month + by + 1, 1)];
    case 'YEARLY':
      return [toDay(start.year + by, 1, 1), toDay(start.year + by + 1, 1, 1)];
  }
}

const PERIOD_DAYS = { DAILY: 1, WEEKLY: 7, MONTHLY: 31, YEARLY: 366 } as const;

/** How much work a file may make: days looked at, over all its rules. */
export type Budget = { days: number };

/**
 * The days of a rule that fall within [from, to], rising, as day numbers; its first day always counts. Dates that do
 * not exist (30 February) are left out, as RFC 5545 says. Work is taken from the budget, a unit a day looked at.
 * @throws RangeError 'budget' where that is used up
 */
export function listDays(
  given: Rule,
  first: number,
  { from, to }: { from: number; to: number },
  budget: Budget,
): number[] {
  const start = dateOf(first);
  const rule = completed(given, start);
  const end = Math.min(to, rule.until ?? to);
  const found: number[] = [];
  // What is counted has to be gone through from its beginning; else the years before are passed over.
  const skip = Math.floor((from - first) / (PERIOD_DAYS[rule.freq] * rule.interval)) - 1;
  let counted = 0;
  const take = (day: number): boolean => {
    if (day > end || (rule.count !== null && counted >= rule.count)) return false;
    counted++;
    if (day >= from) found.push(day);
    return true;
  };
  if (!take(first)) return found;
  for (let n = rule.count === null ? Math.max(0, skip) : 0; ; n++) {
    const [begin, next] = periodOf(rule, start, n);
    if (begin > end) return found;
    if ((budget.days -= next - begin) < 0) throw new RangeError('budget');
    const days: number[] = [];
    for (let day = begin; day < next; day++) if (meets(rule, dateOf(day))) days.push(day);
    const { bySetPos } = rule;
    const chosen =
      bySetPos.length === 0 ? days : days.filter((_, i) => isAmong(bySetPos, i + 1, days.length));
    for (const day of chosen) if (day > first && !take(day)) return found;
  }
}
