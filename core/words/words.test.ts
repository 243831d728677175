import * as fc from 'fast-check';
import { findChecks, findMentions, findTicketNumbers, setCheck, toPlain, writeMention } from './index';

describe('mentions', () => {
  test('a person, a team and everyone are found, each once', () => {
    const text =
      '@[Rui Bastos](person:rui) and @[Onboard systems](team:onboard), @[everyone](everyone); @[Rui](person:rui) again';
    expect(findMentions(text)).toEqual([
      { kind: 'person', id: 'rui' },
      { kind: 'team', id: 'onboard' },
      { kind: 'everyone' },
    ]);
  });

  test('what only looks like one is none', () => {
    expect(
      findMentions('mail rui@ferries.example, [Rui](person:rui), @[x](file:rui), @[](person:rui)'),
    ).toEqual([]);
  });

  test('what is written is found, whatever the name', () => {
    const name = fc
      .string({ minLength: 1, maxLength: 60 })
      .filter((each) => each.replace(/[[\]\n]/g, '') !== '');
    fc.assert(
      fc.property(name, (given) =>
        expect(findMentions(`so ${writeMention({ kind: 'person', id: 'rui' }, given)}.`)).toHaveLength(1),
      ),
    );
  });

  test('plain words keep names and addresses and lose the signs', () => {
    expect(toPlain('**Now**, @[Rui Bastos](person:rui): ![shot.png](file:x1)')).toBe(
      'Now, @Rui Bastos: [shot.png]',
    );
    expect(toPlain('see [the guide](https://docs.example/a)')).toBe('see the guide (https://docs.example/a)');
    expect(toPlain('2 ** 3 and a_b_c stay')).toBe('2 ** 3 and a_b_c stay');
  });
});

describe('checklists', () => {
  const text = [
    'Before sailing:',
    '- [ ] order',
    '  * [x] fit',
    '```',
    '- [ ] code',
    '```',
    '3. [ ] test',
  ].join('\n');

  test('their lines are found, not those in code', () => {
    expect(findChecks(text)).toEqual([
      { text: 'order', isDone: false },
      { text: 'fit', isDone: true },
      { text: 'test', isDone: false },
    ]);
  });

  /** GitHub Flavored Markdown Spec 0.29-gfm, examples 279 and 280. */
  test('the specification’s examples', () => {
    expect(findChecks('- [ ] foo\n- [x] bar')).toEqual([
      { text: 'foo', isDone: false },
      { text: 'bar', isDone: true },
    ]);
    expect(findChecks('- [x] foo\n  - [ ] bar\n  - [x] baz\n- [ ] bim').map(({ isDone }) => isDone)).toEqual([
      true,
      false,
      true,
      false,
    ]);
  });

  test('ticking one off changes that one, and taking it back restores the words', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 1, maxLength: 9 }), fc.nat(8), (done, at) => {
        const index = at % done.length;
        const words = done.map((isDone, i) => `- [${isDone ? 'x' : ' '}] item ${i}`).join('\n');
        const ticked = setCheck(words, index, !done[index]);
        expect(findChecks(ticked).map(({ isDone }) => isDone)).toEqual(
          done.map((isDone, i) => (i === index ? !isDone : isDone)),
        );
        expect(setCheck(ticked, index, done[index]!)).toBe(words);
      }),
    );
  });

  test('a line that is not there changes nothing', () => expect(setCheck(text, 9, true)).toBe(text));
});

test('tickets are named by a number sign, not by addresses or colours', () => {
  expect(
    findTicketNumbers('as #18402, see (#18377) and #18402; not #123, a#18377, https://x.example/#18377'),
  ).toEqual([18402, 18377]);
});
