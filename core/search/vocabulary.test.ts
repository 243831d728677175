import { distance } from 'fastest-levenshtein';
import fc from 'fast-check';
import { Vocabulary } from './vocabulary';

const word = fc.stringMatching(/^[a-e]{1,9}$/);

function of(words: string[]): Vocabulary {
  const vocabulary = new Vocabulary();
  vocabulary.expectMany();
  words.forEach((surface) => vocabulary.add({ surface, stem: surface }));
  return vocabulary;
}

test('the words that begin so are found, whether they came at once or one by one', () => {
  fc.assert(
    fc.property(
      fc.array(word, { maxLength: 40 }),
      fc.array(word, { maxLength: 8 }),
      word,
      (first, later, start) => {
        const vocabulary = of(first);
        // It is asked in between, as it is while articles come.
        Array.from(vocabulary.beginningWith(start, 100));
        later.forEach((surface) => vocabulary.add({ surface, stem: surface }));
        const found = [...vocabulary.beginningWith(start, 100)].map(({ surface }) => surface);
        const expected = [...new Set([...first, ...later])].filter(
          (each) => each.startsWith(start) && each !== start,
        );
        expect(found).toEqual(expected.sort());
      },
    ),
  );
});

test('what is nearest is at most as far as is allowed, and nothing that begins the same is nearer', () => {
  fc.assert(
    fc.property(fc.array(word, { maxLength: 40 }), word, (words, asked) => {
      const found = of(words).nearest(asked);
      const most = asked.length < 4 ? 0 : asked.length < 8 ? 1 : 2;
      for (const { slips } of found) expect(slips).toBeLessThanOrEqual(most);
      const least = Math.min(
        ...words.filter((each) => each[0] === asked[0]).map((each) => distance(each, asked)),
      );
      if (asked.length >= 4 && least <= most)
        expect(Math.min(...found.map(({ slips }) => slips))).toBeLessThanOrEqual(least);
    }),
  );
});

test('two letters that changed places are one slip', () => {
  expect(of(['scanner']).nearest('sacnner')).toEqual([{ surface: 'scanner', stem: 'scanner', slips: 1 }]);
  expect(of(['scanner']).nearest('csanner')).toHaveLength(1);
  expect(of(['ant']).nearest('art')).toEqual([]);
});
