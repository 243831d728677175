import fc from 'fast-check';
import {
  groupQuestions,
  isOffered,
  listMoves,
  listPictures,
  mayRead,
  rankByNeed,
  toPlainText,
  wilsonLower,
  wilsonUpper,
  withoutPersons,
} from './index';

const lena = { site: 'quell', department: 'Deck', title: 'Mate', vessel: 'MV Petrel', teams: [], leads: [] };
const rui = { ...lena, vessel: null, teams: ['onboard'] };

test('an article is read by those it is for, and by everyone where it is open', () => {
  const forAgents = { isOpen: false, audience: [{ by: 'agent' as const }] };
  expect(mayRead(forAgents, lena)).toBe(false);
  expect(mayRead(forAgents, rui)).toBe(true);
  expect(mayRead({ ...forAgents, isOpen: true }, lena)).toBe(true);
  expect(mayRead({ isOpen: false, audience: [] }, lena)).toBe(true);
});

test('agents write and ask for a review; those who answer for the team publish', () => {
  expect(listMoves('draft', 'write')).toEqual(['review']);
  expect(listMoves('draft', 'publish')).toEqual(['review', 'published']);
  expect(listMoves('published', 'publish')).toEqual(['review', 'retired']);
  expect(listMoves('draft', 'none')).toEqual([]);
});

test('a service limited to a label offers only labelled articles, an unlimited one offers both', () => {
  // Common practice in the trade.
  expect([isOffered(['kiosk'], ['kiosk', 'card']), isOffered(['kiosk'], ['scanner'])]).toEqual([true, false]);
  expect([isOffered(null, ['kiosk']), isOffered(null, [])]).toEqual([true, true]);
  expect(isOffered([], ['kiosk'])).toBe(false);
});

test('the interval of a share agrees with a worked example', () => {
  // R. G. Newcombe, Two-sided confidence intervals for the single proportion, Statistics in Medicine 17 (1998),
  // table I, method 3 (score, without continuity correction).
  for (const [yes, all, low, high] of [
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ] as const) {
    expect(wilsonLower(yes, all)).toBeCloseTo(low, 4);
    expect(wilsonUpper(yes, all)).toBeCloseTo(high, 4);
  }
  expect(wilsonLower(2, 2)).toBeLessThan(wilsonLower(180, 200));
});

test('the bounds hold the share, and come closer the more are asked', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 500 }), fc.nat(500), (all, part) => {
      const yes = Math.min(part, all);
      const [low, high] = [wilsonLower(yes, all), wilsonUpper(yes, all)];
      expect(low).toBeLessThanOrEqual(yes / all + 1e-12);
      expect(high).toBeGreaterThanOrEqual(yes / all - 1e-12);
      expect(wilsonUpper(yes * 10, all * 10) - wilsonLower(yes * 10, all * 10)).toBeLessThan(high - low);
    }),
  );
});

test('what is opened much and helps little needs hands first', () => {
  const good = { id: 'good', opened: 400, helped: 180, notHelped: 20 };
  const bad = { id: 'bad', opened: 120, helped: 10, notHelped: 50 };
  const seldom = { id: 'seldom', opened: 6, helped: 0, notHelped: 2 };
  const rare = { id: 'rare', opened: 2, helped: 0, notHelped: 2 };
  expect(rankByNeed([good, seldom, bad, rare]).map(({ id }) => id)).toEqual(['bad', 'seldom']);
});

test('words are read without the signs of their formatting', () => {
  expect(
    toPlainText('# Try this\n\n1. Hold **both** buttons\n2. See [the list](ask:kiosk)\n\n> Not at sea'),
  ).toBe('Try this\nHold both buttons\nSee the list\nNot at sea');
});

test('what says who it was goes, the rest stays', () => {
  expect(
    withoutPersons(
      'Tomás Vieira (tomas.v@solvarra.example, +351 912 345 678) at gate 2: E-71 on kiosk 3, vieira says.',
      ['Tomás Vieira'],
    ),
  ).toBe('… (…) at gate 2: E-71 on kiosk 3, … says.');
  expect(withoutPersons('Anabela restarted it', ['Ana Bela'])).toBe('Anabela restarted it');
  expect(withoutPersons('Since 2026 at 08:30', [])).toBe('Since 2026 at 08:30');
});

test('questions that mean the same are one, with what they cost', () => {
  const asked = (words: string, tickets = 0) => ({ words, tickets });
  const groups = groupQuestions(
    [
      asked('parking permit', 1),
      asked('permit for parking at port alder', 1),
      asked('vessel roster export', 1),
      asked('parking permits'),
      asked('the'),
    ],
    'en',
  );
  expect(groups[0]).toMatchObject({ words: 'parking permit', asked: 3, tickets: 2 });
  expect(groups[1]).toMatchObject({ words: 'vessel roster export', asked: 1, tickets: 1, others: [] });
  expect(groups).toHaveLength(2);
});

test('the pictures of an article are those that were sent for it', () => {
  const text =
    '![Where](file:abc-1)\n\n![](file:d_2) ![Where](file:abc-1) ![Far](https://far.example/x.png) [file](file:no)';
  expect(listPictures(text)).toEqual(['abc-1', 'd_2']);
});
