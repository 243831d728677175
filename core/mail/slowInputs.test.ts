import { isAutomatic, readDecision, readSolved, trimReply } from './index';

/**
 * Texts made to keep a reader busy: with rules that go back over what they have read, each of these took seconds or
 * never ended. Work is bounded by the length of the text, so that twice the text takes about twice as long.
 */
const LETTERS = 60_000;
const SLOW: [string, string][] = [
  ['names without end', `yes\n${'A'.repeat(LETTERS)}!`],
  ['names of one letter', `yes\n${'A '.repeat(LETTERS / 2)}!`],
  ['politeness without end', `yes ${'thank'.repeat(LETTERS / 5)}x`],
  ['politeness of many kinds', `yes ${'best regards kind '.repeat(LETTERS / 18)}x`],
  ['signs without end', `yes${' ,.!'.repeat(LETTERS / 4)}x`],
  ['greetings', `hello${' '.repeat(LETTERS)}x`],
  ['beginnings of quotes', `${`On A 1 `.repeat(50)}wrote ${'x'.repeat(70)}\n`.repeat(LETTERS / 400)],
  ['lines', 'a\n'.repeat(LETTERS / 2)],
  ['quotes', '>\n'.repeat(LETTERS / 2)],
  ['hyphens', `${'-'.repeat(LETTERS)}x`],
  ['headers', 'From: a\n'.repeat(LETTERS / 8)],
];

/** Milliseconds of the processor that this process used for it: what else the machine does is not counted. */
function timeOf(work: () => unknown): number {
  const begun = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(begun);
  return (user + system) / 1000;
}

/** The rounds after which a text counts as slow. Clearing of memory makes single ones long, never all of them. */
const ROUNDS = 12;

test.each(SLOW)('%s', (_, text) => {
  const read = (part: string): void => {
    readDecision(part);
    readDecision(trimReply(part));
    readSolved(part);
    isAutomatic(new Map([['precedence', part]]), part);
  };
  // What goes by the square takes sixteen times as long for four times as much; a constant part makes it less.
  let quarter = Infinity;
  let whole = Infinity;
  const isBounded = (): boolean => whole < 9 * quarter + 20;
  for (let round = 0; round < ROUNDS && !isBounded(); round++) {
    quarter = Math.min(
      quarter,
      timeOf(() => read(text.slice(0, LETTERS / 4))),
    );
    whole = Math.min(
      whole,
      timeOf(() => read(text)),
    );
  }
  expect({ whole, quarter, isBounded: isBounded() }).toMatchObject({ isBounded: true });
  expect(readDecision(text).says).not.toBe('approve');
});

test('what is bounded still reads what people write', () => {
  expect(readDecision('Yes, thank you very much!\nBest regards,\nAna Lobo')).toEqual({ says: 'approve' });
  expect(readDecision('ok\nCumprimentos,\nAna Maria de Lobo')).toMatchObject({ says: 'unclear' });
  expect(trimReply('Yes\n\nOn Mon 3 May 2026 at 10:00, Ana Lobo <a@b.example> wrote:\n> May I?')).toBe('Yes');
  expect(trimReply('Sim - Em 3 de maio, Ana escreveu:\n> Posso?')).toBe('Sim');
  expect(trimReply('I wrote 3 letters\nOn it')).toBe('I wrote 3 letters\nOn it');
});
