import fc from 'fast-check';
import {
  guessPersonMapping,
  PERSON_FIELDS,
  readPersonRow,
  type PersonField,
  type PersonLookups,
} from './index';

/** People as they stand in a table of another program. */
const lookups: PersonLookups = {
  site: (words) => (words === 'Port Alder' ? 'alder' : null),
  team: (words) => (words === 'Desk' ? 'desk' : null),
  manager: (words) => (words === 'Bia' ? 'known' : words === 'Silva' ? 'several' : 'nobody'),
  hasLeft: (email) => email === 'gone@x.example',
  timesOf: (email) => (email === 'twice@x.example' ? 2 : 1),
};
const mapping = Object.fromEntries(PERSON_FIELDS.map((field, column) => [field, { column }])) as Record<
  PersonField,
  { column: number }
>;
const GOOD = {
  ...{ name: 'Ana Reis', email: 'Ana@X.example', site: 'Port Alder', department: 'Stores', job: 'Clerk' },
  ...{ phone: '+351 1', manager: 'Bia', team: 'Desk', language: 'Português', goesFirst: 'Sim' },
};
const read = (given: Partial<Record<PersonField, string>>) =>
  readPersonRow(
    PERSON_FIELDS.map((field) => ({ ...GOOD, ...given })[field]),
    mapping,
    lookups,
  );

test('columns are guessed by what they are often called, in both languages', () => {
  expect(guessPersonMapping(['Nome', 'E-mail', 'Local', 'Chefia', 'Telemóvel'])).toEqual({
    ...{ name: { column: 0 }, email: { column: 1 }, site: { column: 2 } },
    ...{ phone: { column: 4 }, manager: { column: 3 } },
  });
});

test('a row becomes what it says of a person; what is blank is not said', () => {
  expect(read({}).person).toEqual({
    ...{ name: 'Ana Reis', email: 'ana@x.example', siteId: 'alder', department: 'Stores', title: 'Clerk' },
    ...{ phone: '+351 1', manager: 'Bia', teamId: 'desk', language: 'pt', goesFirst: true },
  });
  const little = { department: '', job: '', phone: '', manager: '', team: '', language: '', goesFirst: '' };
  expect(read(little).person).toEqual({ name: 'Ana Reis', email: 'ana@x.example', siteId: 'alder' });
});

test.each([
  ['name', '', 'missing'],
  ['name', 'x'.repeat(101), 'tooLong'],
  ['name', 'Ana\u0000', 'badCharacter'],
  ['email', 'no address', 'malformed'],
  ['email', 'twice@x.example', 'repeated'],
  ['email', 'gone@x.example', 'hasLeft'],
  ['site', 'Atlantis', 'unknownSite'],
  ['team', 'Nobody', 'unknownTeam'],
  ['manager', 'Silva', 'severalPeople'],
  ['manager', 'Zé', 'unknownPerson'],
  ['language', 'Klingon', 'wrongValue'],
  ['goesFirst', 'perhaps', 'wrongValue'],
] as const)('a row whose %s is “%s” is left out: %s', (field, value, code) => {
  expect(read({ [field]: value }).problems).toMatchObject([{ field, code }]);
});

test('all that is wrong is told at once', () => {
  expect(read({ name: '', site: 'Atlantis', language: '?' }).problems.map(({ field }) => field)).toEqual([
    'name',
    'site',
    'language',
  ]);
});

test('whatever stands in a row, either all of it is understood or what is not is told', () => {
  fc.assert(
    fc.property(fc.array(fc.string(), { maxLength: 12 }), (cells) => {
      const { person, problems } = readPersonRow(cells, mapping, lookups);
      expect(person === null).toBe(problems.length > 0);
    }),
  );
});
