import fc from 'fast-check';
import { DateTime } from 'luxon';
import { bucketOf, hourOfWeek, listBuckets, type Unit } from './index';

const MINUTE = 60_000;
const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const ZONES = [
  ...['UTC', 'Europe/Lisbon', 'Atlantic/Azores', 'America/New_York', 'Asia/Kathmandu'],
  // Half an hour forth and back; midnights that do not exist.
  ...['Australia/Lord_Howe', 'America/Sao_Paulo', 'Asia/Beirut'],
];
/** What the wall clock shows. */
const wallOf = (at: number, zone: string): string =>
  DateTime.fromMillis(at, { zone }).toFormat('yyyy-MM-dd HH:mm');
const iso = (at: number, zone: string): string => DateTime.fromMillis(at, { zone }).toISO()!;

test('law: days, weeks, months, quarters and years begin where a reference library says', () => {
  const unit = fc.constantFrom<Exclude<Unit, 'hour'>>('day', 'week', 'month', 'quarter', 'year');
  const at = fc.integer({ min: Date.UTC(1975, 0, 1), max: Date.UTC(2060, 0, 1) });
  fc.assert(
    fc.property(at, unit, fc.constantFrom(...ZONES), (instant, by, zone) => {
      const start = DateTime.fromMillis(instant, { zone }).startOf(by).toMillis();
      // Of a midnight that comes twice the library takes the one with the offset of the instant: the first is meant.
      const expected = wallOf(start - HOUR, zone) === wallOf(start, zone) ? start - HOUR : start;
      expect(iso(bucketOf(instant, by, zone), zone)).toBe(iso(expected, zone));
    }),
    { numRuns: 2_000 },
  );
});

// ISO 8601: weeks begin on Monday; the Gregorian calendar repeats after 400 years.
test('weeks begin on Monday in each of 400 years', () => {
  for (let day = Date.UTC(1900, 0, 1); day < Date.UTC(2300, 0, 1); day += 5 * DAY) {
    const start = bucketOf(day + 7 * HOUR, 'week', 'UTC');
    expect(start).toBe(DateTime.fromMillis(day, { zone: 'UTC' }).startOf('week').toMillis());
  }
});

/** Where an hour bucket begins, by walking back a minute at a time until the wall clock shows another hour or goes back. */
function walkBack(at: number, zone: string): number {
  const wall = (instant: number): number => {
    const local = DateTime.fromMillis(instant, { zone });
    return instant + local.offset * MINUTE;
  };
  for (let start = Math.floor(at / MINUTE) * MINUTE; ; start -= MINUTE) {
    const [now, before] = [wall(start), wall(start - MINUTE)];
    if (Math.floor(now / HOUR) !== Math.floor(before / HOUR) || before >= now) return start;
  }
}

const changes: [zone: string, around: number][] = [
  ['Europe/Lisbon', Date.UTC(2026, 2, 29, 1)],
  ['Europe/Lisbon', Date.UTC(2026, 9, 25, 1)],
  ['Australia/Lord_Howe', Date.UTC(2026, 3, 4, 15)],
  ['Australia/Lord_Howe', Date.UTC(2026, 9, 3, 15, 30)],
  ['America/St_Johns', Date.UTC(1990, 9, 28, 2, 31)],
];

test.each(changes)('hours around a change of the clock in %s', (zone, around) => {
  for (let at = around - 4 * HOUR; at < around + 4 * HOUR; at += 10 * MINUTE)
    expect(iso(bucketOf(at, 'hour', zone), zone)).toBe(iso(walkBack(at, zone), zone));
  const buckets = listBuckets(around - 4 * HOUR, around + 4 * HOUR, 'hour', zone);
  const walked = new Set<number>();
  for (let at = around - 4 * HOUR; at < around + 4 * HOUR; at += MINUTE) walked.add(walkBack(at, zone));
  expect(buckets).toEqual([...walked].sort((a, b) => a - b));
});

test('an hour that comes twice is two buckets, one that does not exist none', () => {
  const autumn = Date.UTC(2026, 9, 24, 23);
  expect(listBuckets(autumn, autumn + 25 * HOUR, 'hour', 'Europe/Lisbon')).toHaveLength(25);
  const spring = Date.UTC(2026, 2, 29);
  expect(listBuckets(spring, spring + 23 * HOUR, 'hour', 'Europe/Lisbon')).toHaveLength(23);
  // Half an hour that comes twice is a bucket of half an hour.
  const hours = listBuckets(
    Date.UTC(2026, 3, 4, 14),
    Date.UTC(2026, 3, 4, 17),
    'hour',
    'Australia/Lord_Howe',
  );
  expect(hours.slice(1).map((at, i) => (at - hours[i]!) / MINUTE)).toContain(30);
});

test('a day whose midnight comes twice begins with the first', () => {
  // The Azores go from 01:00 back to 00:00.
  const zone = 'Atlantic/Azores';
  for (const at of [Date.UTC(2026, 9, 25, 0, 30), Date.UTC(2026, 9, 25, 1, 30), Date.UTC(2026, 9, 25, 12)])
    expect(bucketOf(at, 'day', zone)).toBe(Date.UTC(2026, 9, 25));
  expect(listBuckets(Date.UTC(2026, 9, 24, 12), Date.UTC(2026, 9, 26, 12), 'day', zone)).toHaveLength(3);
});

test('a day whose midnight does not exist begins with its first instant; a day that a zone skipped is none', () => {
  // Beirut goes from 00:00 to 01:00.
  const start = bucketOf(Date.UTC(2024, 2, 31, 12), 'day', 'Asia/Beirut');
  expect(iso(start, 'Asia/Beirut')).toMatch(/^2024-03-31T01:00/);
  const apia = listBuckets(Date.UTC(2011, 11, 29, 12), Date.UTC(2012, 0, 1, 12), 'day', 'Pacific/Apia');
  expect(apia.map((at) => iso(at, 'Pacific/Apia').slice(0, 10))).toEqual([
    ...['2011-12-29', '2011-12-31', '2012-01-01', '2012-01-02'],
  ]);
});

test('law: buckets touch a stretch without gaps, and every instant lies in its own', () => {
  const unit = fc.constantFrom<Unit>('hour', 'day', 'week', 'month', 'quarter', 'year');
  const from = fc.integer({ min: Date.UTC(1990, 0, 1), max: Date.UTC(2040, 0, 1) });
  fc.assert(
    fc.property(
      from,
      fc.integer({ min: 1, max: 40 }),
      unit,
      fc.constantFrom(...ZONES),
      (at, days, by, zone) => {
        const to = at + days * DAY;
        const buckets = listBuckets(at, to, by, zone);
        expect(buckets[0]).toBe(bucketOf(at, by, zone));
        expect(buckets.at(-1)).toBe(bucketOf(to - 1, by, zone));
        buckets.slice(1).forEach((start, i) => expect(bucketOf(start - 1, by, zone)).toBe(buckets[i]));
      },
    ),
  );
  expect(listBuckets(5, 5, 'day', 'UTC')).toEqual([]);
  expect(listBuckets(6, 5, 'day', 'UTC')).toEqual([]);
});

test('weekday and hour are those of the wall clock', () => {
  expect(hourOfWeek(Date.UTC(2026, 2, 2, 9), 'UTC')).toBe(9);
  expect(hourOfWeek(Date.UTC(2026, 2, 1, 23, 30), 'Europe/Lisbon')).toBe(6 * 24 + 23);
  expect(hourOfWeek(Date.UTC(2026, 5, 1, 23, 30), 'Europe/Lisbon')).toBe(24);
});
