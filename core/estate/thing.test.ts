import fc from 'fast-check';
import {
  batches,
  checkThing,
  codeAddress,
  matchThing,
  monthsBetween,
  readCode,
  worthOn,
  type ThingFacts,
} from './index';

const FACTS: ThingFacts = {
  ...{ name: 'Laptop L-1204', tag: 'L-1204', serial: 'SN-88', model: 'Tern 14', place: '', vessel: '' },
  ...{ contract: '', cost: 124_900, boughtOn: '2026-01-15', warrantyUntil: '2029-01-14', dependable: 0.99 },
};

test.each<[Partial<ThingFacts>, string]>([
  [{}, ''],
  [{ name: '  ' }, 'name missing'],
  [{ tag: 'x'.repeat(61) }, 'tag tooLong'],
  [{ model: 'a\u0000b' }, 'model badCharacter'],
  [{ cost: 1.5 }, 'cost malformed'],
  [{ cost: -1 }, 'cost malformed'],
  [{ dependable: 1.01 }, 'dependable malformed'],
  [{ dependable: Number.NaN }, 'dependable malformed'],
  [{ boughtOn: '2026-02-30' }, 'boughtOn notADate'],
  [{ warrantyUntil: '2025-12-31' }, 'warrantyUntil endsTooSoon'],
  [{ boughtOn: null, warrantyUntil: '2025-12-31' }, ''],
])('with %p: %s', (change, wanted) => {
  expect(
    checkThing({ ...FACTS, ...change })
      .map(({ field, code }) => `${field} ${code}`)
      .join(),
  ).toBe(wanted);
});

const HERE = [
  { id: 'one', serial: 'SN88', tag: 'L-1', name: 'LAPTOP', kindId: 'laptop' },
  { id: 'two', serial: 'SN99', tag: 'L-2', name: 'LAPTOP', kindId: 'laptop' },
  { id: 'three', serial: 'SN99', tag: 'L-3', name: 'SCANNER', kindId: 'scanner' },
];
const known = {
  of: (by: 'serial' | 'tag' | 'name', mark: string, kindId: string) =>
    HERE.filter((each) => each[by] === mark && (by !== 'name' || each.kindId === kindId)).map(({ id }) => id),
};

test('a thing is known again by the first mark that names one alone; several are asked about', () => {
  const say = (serial: string, tag: string, name: string, kindId = 'laptop') =>
    matchThing({ serial, tag, name, kindId }, known);
  expect(say('sn 88', 'L-2', '')).toEqual({ id: 'one', by: 'serial' });
  expect(say('SN-new', 'l-2', '')).toEqual({ id: 'two', by: 'tag' });
  expect(say('', '', 'scanner', 'scanner')).toEqual({ id: 'three', by: 'name' });
  expect(say('', '', 'scanner')).toBeNull();
  expect(say('SN99', 'L-3', '')).toEqual({ severalBy: 'serial' });
  expect(matchThing({ serial: 'SN99', tag: 'L-3', name: '', kindId: 'x' }, known, ['tag', 'serial'])).toEqual(
    {
      ...{ id: 'three', by: 'tag' },
    },
  );
});

// Straight-line depreciation as textbooks of accounting reckon it: (1,200.00 − 0) over 48 months is 25.00 a month.
test('worth goes down by the same part every month, to nothing', () => {
  const laptop = { cost: 120_000, boughtOn: '2026-01-15', months: 48 };
  const on = (day: string) => worthOn(laptop, day);
  expect(
    ['2026-01-15', '2026-02-14', '2026-02-15', '2027-01-15', '2030-01-15', '2040-01-01'].map(on),
  ).toEqual([...[120_000, 120_000, 117_500, 90_000, 0, 0]]);
  expect(monthsBetween('2026-01-31', '2026-02-28')).toBe(1);
  expect(monthsBetween('2026-03-01', '2026-01-01')).toBe(0);
});

test('law: worth never grows, is the cost at first and nothing after the last month', () => {
  const day = fc
    .date({ min: new Date('2000-01-01'), max: new Date('2060-01-01'), noInvalidDate: true })
    .map((date) => date.toISOString().slice(0, 10));
  fc.assert(
    fc.property(day, day, fc.nat(10_000_000), fc.integer({ min: 1, max: 240 }), (a, b, cost, months) => {
      const [first, second] = [a, b].sort() as [string, string];
      const thing = { cost, boughtOn: first, months };
      expect(worthOn(thing, first)).toBe(cost);
      expect(worthOn(thing, second)).toBeLessThanOrEqual(cost);
      expect(worthOn(thing, second)).toBeGreaterThanOrEqual(0);
      if (monthsBetween(first, second) >= months) expect(worthOn(thing, second)).toBe(0);
    }),
  );
});

test('a bad batch is seen; a few failures of few things are chance', () => {
  const of = (model: string, all: number, failed: number) =>
    Array.from({ length: all }, (_, i) => ({ id: `${model}${i}`, model, failures: i < failed ? 2 : 0 }));
  const said = batches([
    ...of('Tern 14', 200, 8),
    ...of('Gull 2', 60, 21),
    ...of('Skua', 4, 2),
    ...of('', 9, 9),
  ]);
  expect(said.map(({ model, all, failed, isBad }) => [model, all, failed, isBad])).toEqual([
    ['Gull 2', 60, 21, true],
    ['Skua', 4, 2, false],
    ['Tern 14', 200, 8, false],
  ]);
  expect(batches(of('Gull 2', 60, 60))[0]!.isBad).toBe(false);
});

test('a code leads to its thing; another organisation’s is told apart from a barcode', () => {
  const here = 'https://listo.solvarra.example';
  expect(readCode(codeAddress(here, 'laptop-ana'), here)).toEqual({ id: 'laptop-ana' });
  expect(readCode(' L-1204 ', here)).toEqual({ mark: 'L-1204' });
  expect(readCode('https://other.example/t/laptop-ana', here)).toEqual({ foreign: 'other.example' });
  expect(readCode(`${here}/t/../desk`, here)).toEqual({ foreign: 'listo.solvarra.example' });
  expect(readCode('', here)).toBeNull();
});
