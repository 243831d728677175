import bm25 from 'okapibm25';
import stemEnglish from 'wink-porter2-stemmer';
import { analyserOf, findPassage, listWords, mark, TextIndex } from './index';

/** Its way out is that of an older kind of module. */
const reckon = (bm25 as unknown as { default: typeof bm25 }).default;

const TEXTS = [
  {
    id: 'scanner',
    title: 'When a gate scanner will not read',
    body: 'Clean the window. Then hold both buttons for five seconds.',
    otherWords: 'reader',
  },
  {
    id: 'pass',
    title: 'Season pass shows as unknown',
    body: 'Passes sold after November need the new list on the scanner.',
    otherWords: 'year ticket',
  },
  {
    id: 'printer',
    title: 'Printing from the bridge',
    body: 'Choose the printer by the door. It prints on both sides.',
    otherWords: '',
  },
];
const indexOf = (texts = TEXTS): TextIndex => {
  const index = new TextIndex({ language: 'en' });
  index.addAll(texts);
  return index;
};
const first = (query: string, index = indexOf()): string | undefined => index.search(query)[0]?.id;

test.each([
  ['gate scanner not readin', 'scanner'],
  ['scaner', 'scanner'],
  ['sacnner gate', 'scanner'],
  ['season pas', 'pass'],
  ['passes unknown', 'pass'],
  ['how do I print', 'printer'],
  ['PRINTERS', 'printer'],
  ['year tickets', 'pass'],
])('%j finds %s first', (query, id) => expect(first(query)).toBe(id));

test('nothing, one letter, words that say nothing, another alphabet and very much are all answered', () => {
  const index = indexOf();
  expect(index.search('')).toEqual([]);
  expect(index.search('ωμέγα')).toEqual([]);
  expect(index.search('s').length).toBeGreaterThan(0);
  expect(index.search('the')).toEqual([]);
  expect(first(`${'word '.repeat(5_000)} printer`, index)).toBe('printer');
});

test('other words for the same find it too, and what one may not see is never found', () => {
  const index = indexOf();
  expect(first('turnstile', index)).toBeUndefined();
  index.setSynonyms([['turnstile', 'gate', 'barrier']]);
  expect(first('turnstile', index)).toBe('scanner');
  expect(index.search('scanner', 10, (id) => id !== 'scanner').map(({ id }) => id)).toEqual(['pass']);
});

test('what is taken out or written anew is found as it is now', () => {
  const index = indexOf();
  index.remove('printer');
  expect(first('printer', index)).toBeUndefined();
  index.add({ ...TEXTS[0]!, title: 'When a turnstile will not turn' });
  expect(first('turnstile', index)).toBe('scanner');
  expect(first('gate', index)).toBeUndefined();
  for (let i = 0; i < 300; i++) index.add({ ...TEXTS[2]!, body: `Printer number ${i}` });
  expect(index.size).toBe(3);
  expect(index.search('printer').map(({ id }) => id)).toEqual(['printer']);
});

test('the score is that of the published formula, as a reference library reckons it', () => {
  // Words without forms and beginnings of others, so that both read the same.
  const bodies = [
    'alpha bravo delta',
    'bravo bravo echo golf hotel',
    'echo kilo',
    'alpha lima mike oscar papa quebec tango',
  ];
  const index = new TextIndex({ language: 'en' });
  index.addAll(bodies.map((body, i) => ({ id: `${i}`, title: '', body, otherWords: '' })));
  for (const query of ['bravo', 'alpha echo', 'bravo golf tango']) {
    const expected = reckon(bodies, query.split(' '), { k1: 1.2, b: 0.75 }) as number[];
    const found = new Map(index.search(`${query}.`).map(({ id, score }) => [id, score]));
    expected.forEach((score, i) => expect(found.get(`${i}`) ?? 0).toBeCloseTo(score, 9));
  }
});

test('stems are those of the published algorithm, as another implementation finds them', () => {
  const { analyse } = analyserOf('en');
  const words =
    listWords(`${TEXTS.map(({ title, body }) => `${title} ${body}`).join(' ')} generalization happily
    national relational conditional differently vietnamization hopefulness callousness formality sensitivity
    triplicate electrical adjustment dependent adoption activate angularity bowdlerize skies dying news inning
    proceeding exceed succeed arsenal generous communication past only gently ugly early singly`);
  for (const { text } of words) expect(analyse(text).stem).toBe(stemEnglish(text.toLowerCase()));
});

test('the sentence that answers is shown, with the words marked that it was found by', () => {
  const weights = indexOf().weigh('holding buttons');
  expect(findPassage(TEXTS[0]!.body, weights, 'en')).toEqual([
    { text: 'Then ', isMarked: false },
    { text: 'hold', isMarked: true },
    { text: ' both ', isMarked: false },
    { text: 'buttons', isMarked: true },
    { text: ' for five seconds.', isMarked: false },
  ]);
  const long = `${'and so on '.repeat(60)}hold the buttons ${'and so on '.repeat(60)}`;
  const passage = findPassage(long, weights, 'en');
  expect(passage.filter(({ isMarked }) => isMarked).map(({ text }) => text)).toEqual(['hold', 'buttons']);
  expect(passage.map(({ text }) => text).join('').length).toBeLessThan(220);
  expect(mark('Nothing here', weights, 'en')).toEqual([{ text: 'Nothing here', isMarked: false }]);
});

test('a word that is still being typed counts as its usual ending, not more for a rare one', () => {
  const many = Array.from({ length: 30 }, (_, i) => ({
    ...{ id: `note-${i}`, title: `Number ${i}`, body: 'a file of notes', otherWords: '' },
  }));
  const wanted = { id: 'wanted', title: 'Notes in a file', body: 'how to keep them', otherWords: '' };
  const rare = { id: 'rare', title: 'Filtration', body: 'of water on board', otherWords: '' };
  expect(first('notes fil', indexOf([...many, rare, wanted]))).toBe('wanted');
});

test('typing the words of a heading in their order puts it before its near twins', () => {
  const twins = [
    { id: 'short', title: 'Change gate', body: 'gate gate change', otherWords: 'gate change' },
    { id: 'meant', title: 'Change the gate of a pass', body: 'and so on '.repeat(40), otherWords: '' },
    { id: 'other', title: 'Gate change', body: 'the gate of a pass is changed', otherWords: '' },
  ];
  expect(first('change gate', indexOf(twins))).toBe('short');
  const found = indexOf(twins).search('Change the gat');
  expect(found[0]!.id).toBe('meant');
  expect(found[0]!.score).toBeGreaterThanOrEqual(found[1]!.score);
  expect(first('gate', indexOf(twins))).not.toBe('meant');
});

test('how much of what is asked a text has: rare words count more, unknown ones most, other words for the same too', () => {
  const index = new TextIndex({ language: 'en' });
  index.addAll([
    { id: 'hours', title: 'When the desk is open', body: 'Monday to Friday', otherWords: '' },
    { id: 'desk', title: 'Move a desk', body: 'Ask the porters', otherWords: '' },
    { id: 'gate', title: 'Gate readers', body: 'Beeps and lights', otherWords: '' },
  ]);
  expect(index.coverage('is the desk open on Friday', 'hours')).toBe(1);
  expect(index.coverage('is the desk open on Friday', 'gate')).toBe(0);
  // "Desk" alone stands in two of them.
  expect(index.coverage('is the desk open on Friday', 'desk')).toBeLessThan(0.35);
  expect(index.coverage('is the canteen open', 'hours')).toBeLessThan(0.5);
  expect(index.coverage('is it the', 'hours')).toBe(0);
  index.setSynonyms([['canteen', 'desk']]);
  expect(index.coverage('is the canteen open', 'hours')).toBe(1);
});
