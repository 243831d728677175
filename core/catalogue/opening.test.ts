import fc from 'fast-check';
import { checkOpening, standingOf, type Opening } from './index';

/** Signing up for a day of first aid: two weeks, twelve places. */
const COURSE: Opening = { from: 1_000, until: 2_000, most: 12 };

test.each([
  [999, 0, { state: 'notYet', at: 1_000 }],
  [1_000, 0, { state: 'open', until: 2_000, left: 12 }],
  [1_999, 11, { state: 'open', until: 2_000, left: 1 }],
  [1_500, 12, { state: 'full' }],
  [1_500, 13, { state: 'full' }],
  // That it is over says more than that it was full.
  [2_000, 12, { state: 'over', at: 2_000 }],
])('at %d with %d who asked', (now, asked, expected) => {
  expect(standingOf(COURSE, { now, asked })).toEqual(expected);
});

test('without an opening anyone may ask, at any time', () => {
  const open = { state: 'open', until: null, left: null };
  expect(standingOf(null, { now: 0, asked: 1e6 })).toEqual(open);
  expect(standingOf({ from: null, until: null, most: null }, { now: 0, asked: 1e6 })).toEqual(open);
});

test('law: what nothing is wrong with is open at some time to someone, and then never again', () => {
  const instant = fc.option(fc.integer({ min: 0, max: 50 }), { nil: null });
  const openings = fc.record({
    ...{ from: instant, until: instant },
    most: fc.option(fc.integer({ min: -2, max: 5 }), { nil: null }),
  });
  fc.assert(
    fc.property(openings, (opening) => {
      const states = Array.from(
        { length: 60 },
        (_, i) => standingOf(opening, { now: i - 2, asked: 0 }).state,
      );
      const isEverOpen = states.includes('open');
      if (checkOpening(opening).length === 0 && opening.until !== 0 && (opening.until ?? 60) > -2)
        expect(isEverOpen).toBe(true);
      if (checkOpening(opening).includes('endsFirst')) expect(isEverOpen).toBe(false);
      // Not yet, open, over: in this order, each at most once.
      const order = states.filter((state, i) => state !== states[i - 1]);
      expect(order).toEqual(
        ['notYet', 'open', 'full', 'over'].filter((state) => order.includes(state as never)),
      );
    }),
  );
});
