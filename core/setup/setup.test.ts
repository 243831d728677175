import fc from 'fast-check';
import { findSettings, listSetup, nextOf, SETUP_COUNTS, SETUP_PARTS, type SetupFacts } from '.';

/** The order in which an organisation is set up, and how a setting is found. */
const NOTHING = Object.fromEntries(SETUP_COUNTS.map((count) => [count, 0])) as SetupFacts;
const of = (facts: Partial<SetupFacts>) => listSetup({ ...NOTHING, ...facts });
const stateOf = (facts: Partial<SetupFacts>, part: string) =>
  of(facts).find((step) => step.part === part)?.state;

test('with nothing there, only what needs nothing can be begun, and the rest says what it waits for', () => {
  expect(nextOf(of({}))).toBe('calendars');
  expect(stateOf({}, 'mail')).toBe('notBegun');
  const teams = of({}).find(({ part }) => part === 'teams');
  expect(teams).toMatchObject({ state: 'waits', waitsFor: ['calendars', 'people'] });
});

test('what comes next is the first that cannot wait', () => {
  expect(nextOf(of({ calendars: 1, sites: 1, people: 4 }))).toBe('teams');
  expect(nextOf(of({ calendars: 1, sites: 1, people: 4, teams: 1, services: 2 }))).toBe('targets');
  expect(nextOf(of({ calendars: 1, sites: 1, people: 4, teams: 1, services: 2, targets: 1 }))).toBeNull();
});

test('what is there and lacks something wants attention, with how many', () => {
  const teams = of({ teams: 3, teamsWithoutLead: 2 }).find(({ part }) => part === 'teams');
  expect(teams).toMatchObject({
    ...{ state: 'attention', there: [{ count: 'teams', number: 3 }] },
    lacks: [{ count: 'teamsWithoutLead', number: 2 }],
  });
  expect(stateOf({ teams: 3 }, 'teams')).toBe('ready');
});

test('nothing waits for what stands after it, whatever there is; what is there waits for nothing', () => {
  const facts = fc.record(
    Object.fromEntries(SETUP_COUNTS.map((count) => [count, fc.nat(2)])) as Record<
      (typeof SETUP_COUNTS)[number],
      fc.Arbitrary<number>
    >,
  );
  fc.assert(
    fc.property(facts, (given) => {
      for (const { part, waitsFor, state, there } of listSetup(given)) {
        for (const other of waitsFor)
          expect(SETUP_PARTS.indexOf(other)).toBeLessThan(SETUP_PARTS.indexOf(part));
        expect(state === 'waits').toBe(waitsFor.length > 0);
        if (there[0]!.number > 0) expect(['ready', 'attention']).toContain(state);
      }
    }),
  );
});

const SETTINGS = [
  {
    ...{ id: 'outOfHours', name: 'Out of hours', help: 'What becomes of work while a team is off.' },
    others: 'customers hear nothing at night, evening, weekend, closed',
  },
  { id: 'labels', name: 'Progress labels', help: 'How far something is.', others: 'status, stages' },
  { id: 'teams', name: 'New team', help: 'Who does the work.', others: 'department, squad' },
  { id: 'dias', name: 'Feriados', help: 'Dias em que não se trabalha.', others: 'férias, Natal, ponte' },
];

test.each([
  ['out of hours', 'outOfHours'],
  ['customers hear nothing at night', 'outOfHours'],
  ['nights', 'outOfHours'],
  ['the customer hears nothing', 'outOfHours'],
  ['statuses', 'labels'],
  ['prog', 'labels'],
  ['how do I make departments?', 'teams'],
  ['ferias', 'dias'],
  ['não se trabalha no Natal', 'dias'],
])('“%s” leads to %s first', (asked, expected) => {
  expect(findSettings(SETTINGS, asked)[0]).toBe(expected);
});

test('what says nothing finds nothing; what fits badly beside a good one is left out', () => {
  expect(findSettings(SETTINGS, '')).toEqual([]);
  expect(findSettings(SETTINGS, 'what do we do with it')).toEqual([]);
  expect(findSettings(SETTINGS, 'xylophone')).toEqual([]);
  expect(findSettings(SETTINGS, 'progress label')).toEqual(['labels']);
});

test('whatever is typed, each is found by its own name, and none twice', () => {
  fc.assert(
    fc.property(fc.constantFrom(...SETTINGS), fc.string(), ({ id, name }, more) => {
      expect(findSettings(SETTINGS, name)).toContain(id);
      const found = findSettings(SETTINGS, more);
      expect(new Set(found).size).toBe(found.length);
    }),
  );
});
