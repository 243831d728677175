import fc from 'fast-check';
import {
  listCalled,
  splitCalls,
  findUnknownNoticeBlanks,
  isQuiet,
  mayLeave,
  asConversation,
  isQuestion,
  isTakingBack,
  readAddressed,
  readTaken,
  overUpTo,
  takeInOrder,
  takeTurn,
  toTitle,
  writeNotice,
  type Place,
} from './index';

test.each([
  ['Listo, the kiosk is dead', 'the kiosk is dead'],
  ['listo: o quiosque parou', 'o quiosque parou'],
  ['@Listo, two\nlines', 'two\nlines'],
  ['Listo is slow today', null],
  ['I asked Listo, it said no', null],
  ['Listo,   ', null],
])('what is handed in from the typing line: %s', (text, rest) => {
  expect(readAddressed(text)).toBe(rest);
});

test.each([
  ['hi all, can someone look at gate 4? thanks', 'Look at gate 4'],
  [
    'gate 4 at Quell just went dark too, can someone look',
    'Gate 4 at Quell just went dark too, can someone look',
  ],
  ['Bom dia pessoal. O leitor do cais 2 não lê. Obrigado', 'O leitor do cais 2 não lê'],
  ['@bia https://intra.example/x kiosk 3 is frozen!!', 'Kiosk 3 is frozen'],
  ['Listo, please reset my password', 'Reset my password'],
  ['help', 'Help'],
  ['???', '???'],
])('a title made of what was said: %s', (text, title) => {
  expect(toTitle(text)).toBe(title);
});

test('only names called, or an address, still make a title', () => {
  expect(toTitle('@rui @hanna')).toBe('@rui @hanna');
  expect(toTitle(' https://solvarra.example/gate ')).toBe('https://solvarra.example/gate'.replace('h', 'H'));
});

test('a title is one line, not empty and not too long, whatever was said', () => {
  fc.assert(
    fc.property(fc.string({ minLength: 1, maxLength: 400 }), (text) => {
      fc.pre(/\p{L}/u.test(text));
      const title = toTitle(text);
      expect(title.length).toBeLessThanOrEqual(121);
      expect(title.length).toBeGreaterThan(0);
      expect(title).not.toContain('\n');
    }),
  );
});

test('what is meant for the team goes to its closed room and through no other door', () => {
  const places: Place[] = ['teamRoom', 'readersRoom', 'openRoom', 'direct', 'notice'];
  const openTo = (readBy: 'requester' | 'team', isChosen: boolean) =>
    places.filter((place) => mayLeave(readBy, place, isChosen));
  expect(openTo('team', false)).toEqual(['teamRoom']);
  expect(openTo('team', true)).toEqual(['teamRoom']);
  expect(openTo('requester', false)).toEqual(['teamRoom', 'readersRoom', 'direct']);
  expect(openTo('requester', true)).toEqual(['teamRoom', 'readersRoom', 'openRoom', 'direct']);
});

test('however events arrive, each is taken once and in order', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 12 }),
      fc.array(fc.nat(1000), { minLength: 24, maxLength: 24 }),
      (count, mix) => {
        // Each twice, in any order.
        const sent = [...Array(count * 2).keys()]
          .map((i) => ({ seq: (i % count) + 1, receivedAt: 0, key: mix[i]! }))
          .sort((a, b) => a.key - b.key);
        let last = 0;
        const handled: number[] = [];
        const waiting: typeof sent = [];
        for (const each of sent) {
          waiting.push(each);
          for (const { seq } of takeInOrder(waiting, last, 0, 1000)) {
            handled.push(seq);
            last = seq;
          }
        }
        expect(handled).toEqual([...Array(count).keys()].map((i) => i + 1));
      },
    ),
  );
});

test('a gap holds up what follows, but not for ever', () => {
  const waiting = [{ seq: 3, receivedAt: 100 }];
  expect(takeInOrder(waiting, 1, 500, 1000)).toEqual([]);
  expect(takeInOrder(waiting, 1, 1100, 1000)).toEqual(waiting);
});

test('quiet hours go over midnight, where the person works', () => {
  const night = { from: 22 * 60, to: 7 * 60 };
  expect(isQuiet(Date.parse('2026-11-25T23:30:00Z'), night, 'UTC')).toBe(true);
  expect(isQuiet(Date.parse('2026-11-25T07:00:00Z'), night, 'UTC')).toBe(false);
  // In Lisbon's summer it is an hour later.
  expect(isQuiet(Date.parse('2026-07-25T21:30:00Z'), night, 'Europe/Lisbon')).toBe(true);
  expect(isQuiet(Date.parse('2026-11-25T12:00:00Z'), null, 'UTC')).toBe(false);
});

test('the words of a notice are composed from the ticket, and unknown blanks are found', () => {
  expect(writeNotice('{number}: {title} ({nobody})', { number: '7', title: 'Kiosk' })).toBe(
    '7: Kiosk ({nobody})',
  );
  expect(findUnknownNoticeBlanks('{number} {titel}')).toEqual(['titel']);
});

test.each([
  ['@Rui, can @hanna look? Or hanna@solvarra.example', ['rui', 'hanna']],
  ['(@ana-b) and @ana-b.', ['ana-b']],
  ['@@rui or a@b or @ alone', []],
  ['@são', ['são']],
])('whom words call: %s', (text, handles) => {
  expect(listCalled(text)).toEqual(handles);
  expect(splitCalls(text).join('')).toBe(text);
});

test('in turns of any size, with failures on the way and long after, each is heard once and nothing is passed over', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.infiniteStream(fc.integer({ min: 1, max: 6 })),
      fc.infiniteStream(fc.boolean()),
      (count, sizes, fails) => {
        const room = Array.from({ length: count }, (_, i) => ({ seq: i + 1, receivedAt: 0, isOver: false }));
        const heard: number[] = [];
        let lastSeq = 0;
        for (let turns = 0; turns < 400 && lastSeq < count; turns++) {
          const waiting = room.filter(({ isOver, seq }) => !isOver && seq > lastSeq);
          const atHand = new Set(waiting.slice(0, sizes.next().value).map(({ seq }) => seq));
          const known = room.filter(({ seq }) => seq > lastSeq).map((each) => ({ ...each }));
          // All came long ago, so that a gap would be passed over.
          const turn = takeTurn(known, (seq) => atHand.has(seq), { lastSeq, now: 1_000, patience: 10 });
          for (const { seq, isOver } of turn) {
            if (isOver) continue;
            expect(atHand.has(seq)).toBe(true);
            if (fails.next().value && turns < 200) continue;
            heard.push(seq);
            room[seq - 1]!.isOver = true;
          }
          lastSeq = overUpTo(turn, lastSeq, (seq) => room[seq - 1]!.isOver);
        }
        expect([...heard].sort((a, b) => a - b)).toEqual(room.map(({ seq }) => seq));
      },
    ),
  );
});

test.each([
  ['last 10', { count: 10, title: '' }],
  ['the last 12 lines: gate 4 is dark', { count: 12, title: 'gate 4 is dark' }],
  ['as últimas 7 linhas: a cancela 4 está às escuras', { count: 7, title: 'a cancela 4 está às escuras' }],
  ['os ultimos 3', { count: 3, title: '' }],
  // More than can be taken are as many as can be.
  ['the last 400', { count: 50, title: '' }],
  ['the last 0', null],
  ['the last 2 printers are dead', null],
  ['last week it broke', null],
  ['gate 4 is dark', null],
])('“%s” takes %j of what was said before', (words, expected) => {
  expect(readTaken(words)).toEqual(expected);
});

test('a conversation names who speaks where another one begins, and nobody where one alone speaks', () => {
  const lines = [
    { by: 'Lena', text: 'gate 4 went dark' },
    { by: 'Lena', text: 'and gate 5' },
    { by: 'Rui', text: 'since when?' },
    { by: 'Lena', text: 'since noon' },
  ];
  expect(asConversation(lines, 'Lena')).toBe(
    'Lena: gate 4 went dark\nand gate 5\nRui: since when?\nLena: since noon',
  );
  expect(asConversation(lines.slice(0, 2), 'Lena')).toBe('gate 4 went dark\nand gate 5');
  expect(asConversation(lines.slice(0, 2), 'Ana')).toBe('Lena: gate 4 went dark\nand gate 5');
});

test.each([
  ['Good morning, is the desk open on Friday?', true],
  ['Bom dia, onde se pede um cartão novo?', true],
  ['How do I reset the gate reader? It beeps', true],
  ['Olá, é preciso aprovação para isto?', true],
  ['Está aberto ao sábado?', true],
  // Wanted, told to be broken, or half a question.
  ['Can someone look at gate 4? It is dark', false],
  ['gate 4 went dark', false],
  ['The printer prints twice, right?', false],
])('“%s” is a question: %s', (text, expected) => {
  expect(isQuestion(text)).toBe(expected);
});

test.each([
  ['That was none.', true],
  ['never mind', true],
  ['não era nada!', true],
  ['Esqueça isso', true],
  ['esquece', true],
  ['That was none of ours but look at gate 4', false],
  ['nothing works', false],
])('“%s” takes it back: %s', (text, expected) => {
  expect(isTakingBack(text)).toBe(expected);
});
