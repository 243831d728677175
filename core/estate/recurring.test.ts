import fc from 'fast-check';
import { recurring, type Incident } from './index';

const HOUR = 3_600_000;
const incident = (number: number, title: string, given: Partial<Incident> = {}): Incident => ({
  ...{ number, title, thingId: null, serviceId: 'gates', cost: HOUR },
  ...given,
});

const KIOSK = [1, 2, 3].map((number) => incident(number, `Broken again ${number}`, { thingId: 'kiosk3' }));
const SCANNERS = [
  incident(4, 'Gate scanner rejects season passes'),
  incident(5, 'Scanner at the gate rejects a season pass', { cost: 9 * HOUR }),
  incident(6, 'Season pass rejected by gate scanner'),
];

test('groups by the thing, else by service and like words; what cost most stands first', () => {
  const other = [incident(7, 'Heating off'), incident(8, 'Door stuck'), incident(9, 'Light broken')];
  expect(recurring([...KIOSK, ...SCANNERS, ...other], [])).toEqual([
    { thingId: null, serviceId: 'gates', numbers: [4, 5, 6], cost: 11 * HOUR, problemId: null },
    { thingId: 'kiosk3', serviceId: null, numbers: [1, 2, 3], cost: 3 * HOUR, problemId: null },
  ]);
});

test('two are no pattern, and another service is another matter', () => {
  expect(recurring(KIOSK.slice(0, 2), [])).toEqual([]);
  const apart = SCANNERS.map((each, i) => ({ ...each, serviceId: `s${i}` }));
  expect(recurring(apart, [])).toEqual([]);
});

test('what belongs to an open problem is shown with it, by its thing or by a tied incident', () => {
  const problems = [
    { id: 'p1', thingId: 'kiosk3', numbers: [] },
    { id: 'p2', thingId: null, numbers: [6] },
  ];
  const found = recurring([...KIOSK, ...SCANNERS], problems);
  expect(found.map(({ problemId }) => problemId)).toEqual(['p2', 'p1']);
});

test('law: an incident is in one group at most, and each group is large enough', () => {
  const some = fc.record({
    ...{
      title: fc.constantFrom('gate scanner dead', 'scanner dead at gate', 'printer jam', 'printer jam again'),
    },
    ...{
      thingId: fc.option(fc.constantFrom('a', 'b')),
      serviceId: fc.constantFrom('x', 'y'),
      cost: fc.nat(9),
    },
  });
  fc.assert(
    fc.property(fc.array(some, { maxLength: 20 }), (all) => {
      const incidents = all.map((each, i) => ({ number: i + 1, ...each }));
      const groups = recurring(incidents, []);
      const numbers = groups.flatMap((group) => group.numbers);
      expect(new Set(numbers).size).toBe(numbers.length);
      expect(groups.every((group) => group.numbers.length >= 3)).toBe(true);
      expect(groups.map(({ cost }) => cost)).toEqual(
        [...groups.map(({ cost }) => cost)].sort((a, b) => b - a),
      );
    }),
  );
});
