import { dayEdges } from './index';

const HOUR = 3_600_000;

test('days begin at midnight of the zone, and the last edge is the end of today', () => {
  const now = Date.parse('2026-11-26T10:00:00Z');
  expect(dayEdges(now, 'Atlantic/Azores', 2).map((edge) => new Date(edge).toISOString())).toEqual([
    '2026-11-25T01:00:00.000Z',
    '2026-11-26T01:00:00.000Z',
    '2026-11-27T01:00:00.000Z',
  ]);
});

/** IANA time zone data: Europe/Lisbon leaves summer time on 25 October 2026 and enters it on 28 March 2027. */
test.each([
  ['2026-10-25T12:00:00Z', 25],
  ['2027-03-28T12:00:00Z', 23],
])('the day of %s has %i hours', (now, hours) => {
  const [from, to] = dayEdges(Date.parse(now), 'Europe/Lisbon', 1);
  expect((to! - from!) / HOUR).toBe(hours);
});
