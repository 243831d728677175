import fc from 'fast-check';
import { ALWAYS } from '../conditions';
import {
  checkSubscription,
  WEBHOOK_KINDS,
  hearsOf,
  nextOf,
  parseRetryAfter,
  PAUSES_MS,
  type Next,
} from './index';

const H = 3_600_000;
const NOW = Date.parse('2026-11-25T10:00:00Z');

test('what is taken is delivered, whatever the try', () => {
  fc.assert(
    fc.property(fc.integer({ min: 200, max: 299 }), fc.integer({ min: 1, max: 20 }), (status, tries) =>
      expect(nextOf({ status }, tries, NOW)).toEqual({ state: 'delivered' }),
    ),
  );
});

test('what fails is tried ten times within a little over three days, each pause longer than the last', () => {
  let [now, tries] = [NOW, 1];
  const pauses: number[] = [];
  let next: Next = nextOf({ status: 500 }, tries, now);
  while (next.state === 'waiting') {
    pauses.push(next.at - now);
    now = next.at;
    next = nextOf({ status: null }, ++tries, now);
  }
  expect(next).toEqual({ state: 'undelivered', stops: false });
  expect(tries).toBe(10);
  expect(pauses).toEqual([...pauses].sort((a, b) => a - b));
  expect((now - NOW) / H).toBeGreaterThan(72);
  expect((now - NOW) / H).toBeLessThan(78);
});

test.each<[string, Parameters<typeof nextOf>[0], Next]>([
  ['a receiver that is gone is told nothing more', { status: 410 }, { state: 'undelivered', stops: true }],
  [
    'an address that may not be called',
    { status: null, isRefused: true },
    { state: 'undelivered', stops: false },
  ],
  ['a redirect is no yes', { status: 302 }, { state: 'waiting', at: NOW + PAUSES_MS[0] }],
  [
    'a longer pause that is asked for',
    { status: 429, retryAfterMs: 600_000 },
    { state: 'waiting', at: NOW + 600_000 },
  ],
  ['a shorter one', { status: 503, retryAfterMs: 1 }, { state: 'waiting', at: NOW + PAUSES_MS[0] }],
  ['no pause of a year', { status: 503, retryAfterMs: 1e12 }, { state: 'waiting', at: NOW + H }],
])('%s', (_, outcome, next) => expect(nextOf(outcome, 1, NOW)).toEqual(next));

// RFC 9110, 10.2.3: the two forms, with the RFC's own date.
test.each([
  ['120', 120_000],
  ['Fri, 31 Dec 1999 23:59:59 GMT', 0],
  ['Wed, 25 Nov 2026 10:00:30 GMT', 30_000],
  ['soon', null],
  [undefined, null],
])('Retry-After: %s', (field, ms) => expect(parseRetryAfter(field, NOW)).toBe(ms));

test('a webhook hears of the kinds that it names, or of all that happens to tickets', () => {
  expect(hearsOf({ kinds: ['done'] }, { type: 'done' })).toBe(true);
  expect(hearsOf({ kinds: ['done'] }, { type: 'taken' })).toBe(false);
  expect(WEBHOOK_KINDS.every((type) => hearsOf({ kinds: [] }, { type }))).toBe(true);
  expect(hearsOf({ kinds: [] }, { type: 'personMade' })).toBe(false);
  expect(hearsOf({ kinds: [] }, { type: 'askWithdrawn' })).toBe(false);
});

test('a kind that there is not and a condition on what is not known are refused, by name', () => {
  expect(checkSubscription({ kinds: ['done'], provided: ALWAYS })).toEqual([]);
  expect(checkSubscription({ kinds: ['done', 'exploded'], provided: ALWAYS })).toEqual([
    { field: 'kinds.1', code: 'notAChoice' },
  ]);
  const [fault] = checkSubscription({ kinds: [], provided: { field: 'colour', is: 'red' } as never });
  expect(fault).toMatchObject({ field: 'provided' });
});
