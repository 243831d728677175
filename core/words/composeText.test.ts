import fc from 'fast-check';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { toString } from 'mdast-util-to-string';
import { composeText, isTooNested, parseMarkdown } from './index';

const AT = 'https://listo.example';

test.each([
  ['1. Hold **both** buttons\n2. Wait\n3. Let go', '1. Hold both buttons\n2. Wait\n3. Let go'],
  ['3. Third\n4. Fourth', '3. Third\n4. Fourth'],
  ['- one\n- two\n\n  more', '- one\n- two\n  more'],
  ['1. Do\n   - this\n   - that', '1. Do\n   - this\n   - that'],
  ['## Heading\n\nText', 'Heading\n\nText'],
  ['[A season pass](/ask/articles/a1?ticket=7)', `A season pass (${AT}/ask/articles/a1?ticket=7)`],
  ['[the list](ask:kiosk)', `the list (${AT}/ask/services/kiosk)`],
  ['see [it](https://docs.example/a)', 'see it (https://docs.example/a)'],
  ['<https://docs.example/a>', 'https://docs.example/a'],
  ['@[Rui Bastos](person:rui), look', '@Rui Bastos, look'],
  ['![shot.png](file:x1)', '[shot.png]'],
  ['> said before\n\nnow', '> said before\n\nnow'],
  ['[x](javascript:alert(1)) [y](//evil.example)', 'x y'],
  ['2 ** 3 and a_b_c stay', '2 ** 3 and a_b_c stay'],
  ['a line\nand the next', 'a line\nand the next'],
  ['```\nipconfig /all\n```', 'ipconfig /all'],
  ['', ''],
])('%j', (markdown, text) => expect(composeText(markdown, AT)).toBe(text));

test('no address of Listo’s own leaves without where Listo is', () => {
  fc.assert(
    fc.property(
      fc.stringMatching(/^[a-z0-9/?=-]{0,20}$/),
      fc.stringMatching(/^[a-z ]*[a-z]$/),
      (path, name) => {
        fc.pre(!path.startsWith('/'));
        const word = name.trim();
        expect(composeText(`[${word}](/${path})`, AT)).toBe(`${word} (${AT}/${path})`);
      },
    ),
  );
});

/** What readers of Markdown take long over: each of these is seen for what it is without being read. */
test.each([
  ['quotes', '>'.repeat(9_000)],
  ['quotes with blanks', '> '.repeat(6_000)],
  ['lists', '- '.repeat(3_000)],
  ['numbered lists', '1. '.repeat(3_000)],
  ['links begun', '[a]('.repeat(5_000)],
  ['pictures begun', '!['.repeat(5_000)],
  ['emphasis of two kinds', '*a_'.repeat(6_600)],
  ['nested lines', `${'- '.repeat(12)}a\n`.repeat(800)],
])('too nested: %s', (_, text) => {
  expect(isTooNested(text)).toBe(true);
  expect(parseMarkdown(text).children).toHaveLength(1);
  expect(toString(parseMarkdown(text))).toBe(text);
});

test('what people write is read', () => {
  const steps = Array.from(
    { length: 200 },
    (_, i) => `${i + 1}. Press **${i}** and see [the page](/a/${i})\n`,
  );
  const quote = '> > what was said before\n> and before that\n\nmy answer';
  const table = `| a | b |\n| - | - |\n${'| *x* | [y](z) |\n'.repeat(60)}`;
  for (const text of [steps.join('\n'), quote, table, '- a\n  - b\n    - c\n      - d'])
    expect([isTooNested(text), parseMarkdown(text)]).toEqual([false, fromMarkdown(text)]);
});
