import fc from 'fast-check';
import { listWords, rankSimilar, type Described } from './index';

const ticket = (number: number, title: string, more: Partial<Described> = {}): Described => ({
  ...{ number, title, serviceId: 'gates', place: 'Port Alder', requesterId: 'tomas' },
  ...more,
});
const ALL = [
  ticket(1, 'Gate scanners reject season passes'),
  ticket(2, 'Gate scanner rejects a season pass', { place: 'Quell Harbour' }),
  ticket(3, 'Kiosk 3 frozen on payment', { serviceId: 'kiosk' }),
  ticket(4, 'Gate screen shows the wrong sailing'),
  ticket(5, 'Leitor da Baía não lê passes', { serviceId: 'gates', place: 'Baía Longa' }),
];

test('finds the same matter in other words, the nearest first, and says by what', () => {
  const [first, second, ...rest] = rankSimilar(ticket(9, 'Season pass rejected at the gate, scanner 2'), ALL);
  expect([first!.number, second!.number]).toEqual([1, 2]);
  expect(first!.sharedWords).toEqual(expect.arrayContaining(['season', 'pass', 'scanner', 'gate']));
  expect(first).toMatchObject({ samePlace: true, sameService: true });
  expect(rest.map(({ number }) => number)).not.toContain(3);
});

test('the same place and service alone make nothing alike', () => {
  expect(rankSimilar(ticket(9, 'Heating'), ALL)).toEqual([]);
});

test('plural, case, accents and little words do not matter', () => {
  expect([...listWords('The SCANNERS of the Baía').keys()]).toEqual(['scanner', 'baia']);
  expect(rankSimilar(ticket(9, 'leitor BAIA passe', { place: 'Baía Longa' }), ALL)[0]!.number).toBe(5);
});

test('likeness lies between 0 and 1, and a ticket with the same words is most alike', () => {
  const words = fc.array(fc.constantFrom('gate', 'scanner', 'kiosk', 'pass', 'link', 'drops', 'frozen'), {
    minLength: 1,
    maxLength: 5,
  });
  fc.assert(
    fc.property(words, fc.array(words, { maxLength: 6 }), (own, others) => {
      const of = ticket(0, own.join(' '));
      const candidates = [own, ...others].map((each, i) => ticket(i + 1, each.join(' ')));
      const ranked = rankSimilar(of, candidates, { least: 0 });
      for (const { score } of ranked) expect(score).toBeLessThanOrEqual(1 + 1e-9);
      expect(ranked.find(({ number }) => number === 1)!.score).toBeCloseTo(ranked[0]!.score, 9);
    }),
  );
});
