import { chooseByName, guessDelimiter, guessMapping, readRow, type Lookups } from './index';

test.each([
  ['a,b,c\n1;2,3', ','],
  ['a;b;c\n', ';'],
  ['"a,b,c";d;e\n', ';'],
  ['a\tb\n', '\t'],
  ['one', ','],
])('in %j cells are parted by %j', (text, delimiter) => expect(guessDelimiter(text)).toBe(delimiter));

test('columns are guessed by their headings, each used once', () => {
  expect(guessMapping(['Nr', 'Assunto', 'Pedido por', 'Tipo', 'Descrição', 'Urgência'])).toEqual({
    title: { column: 1 },
    requester: { column: 2 },
    service: { column: 3 },
    words: { column: 4 },
    urgency: { column: 5 },
  });
  expect(guessMapping(['Subject', 'Subject'])).toEqual({ title: { column: 0 } });
});

const lookups: Lookups = {
  person: (words) => (words === 'tomas@x' ? { id: 'tomas' } : words === 'Silva' ? 'several' : 'nobody'),
  service: (words) => (words === 'kiosk' ? 'kiosk' : null),
  impact: chooseByName(['site', 'person'] as const, (choice) =>
    choice === 'site' ? ['A site', 'um local'] : [],
  ) as Lookups['impact'],
  urgency: () => null,
};
const mapping = {
  title: { column: 0 },
  requester: { column: 1 },
  service: { always: 'kiosk' },
  impact: { column: 2 },
};

test('a row becomes a ticket, or says everything that is wrong with it', () => {
  expect(readRow([' Kiosk 3 ', 'tomas@x', 'Um Local'], mapping, lookups)).toEqual({
    ticket: {
      title: 'Kiosk 3',
      requesterId: 'tomas',
      serviceId: 'kiosk',
      words: '',
      impact: 'site',
      urgency: null,
    },
    problems: [],
  });
  expect(
    readRow(['x'.repeat(201), 'Nobody', 'huge'], mapping, lookups).problems.map(
      ({ field, code }) => `${field} ${code}`,
    ),
  ).toEqual(['title tooLong', 'requester unknownPerson', 'impact wrongValue']);
  expect(readRow(['', 'Silva'], mapping, lookups).problems.map(({ code }) => code)).toEqual([
    'missing',
    'severalPeople',
  ]);
  expect(readRow([], {}, lookups).problems.map(({ field }) => field)).toEqual([
    'title',
    'requester',
    'service',
  ]);
});
