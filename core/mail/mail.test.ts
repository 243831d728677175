import fc from 'fast-check';
import {
  ANSWER_ABOVE,
  DEFAULT_MAIL_TEXTS,
  isAutomatic,
  MAIL_TEMPLATES,
  readDecision,
  readSolved,
  toHtml,
  trimReply,
  writeMail,
} from './index';

/** From the tests of planer 1.2.0, a general library for answers in mail (test/planerText.test.coffee). */
const PLANER: [string, string][] = [
  ['Oh, hai', 'Oh, hai'],
  [
    'Test reply\n\nOn 11-Apr-2011, at 6:54 PM, Roman Tkachenko <romant@example.com> wrote:\n\n>\n> Test\n>\n> Roman',
    'Test reply',
  ],
  ['Blah-blah-blah\nOn blah-blah-blah', 'Blah-blah-blah\nOn blah-blah-blah'],
  ['reply On Wed, Apr 4, 2012 at 3:59 PM, bob@example.com wrote:\n> Hi', 'reply'],
  ['On 04/19/2011 07:10 AM, Roman Tkachenko wrote:\n\n>\n> Test\nTest reply', 'Test reply'],
  [
    'Test reply\nOn 04/19/2011 07:10 AM, Roman Tkachenko wrote:\n\n>\n> Test\nRegards, Roman',
    'Test reply\nRegards, Roman',
  ],
  [
    'Test reply\nOn Nov 30, 2011, at 12:47 PM, Somebody <\n416ffd3258d4d2fa4c85cfa4c44e1721d66e3e8f4@somebody.domain.com>\nwrote:\n\nTest message',
    'Test reply',
  ],
  ['Hi\nOn 04/19/2011 07:10 AM, Roman Tkachenko wrote:\n\n> Hello', 'Hi'],
];
const OURS: [string, string][] = [
  [
    'Sim\n\nEm seg., 23 de nov. de 2026 às 10:12, Listo\n<a+x@listo.example> escreveu:\n> Pode decidir?',
    'Sim',
  ],
  ['Não, é caro.\n\n-----Mensagem original-----\nDe: Listo', 'Não, é caro.'],
  ['Sim.\n\nDe: Listo <a@listo.example>\nEnviada: segunda-feira\nPara: Ana\nAssunto: x', 'Sim.'],
  [`Yes\n\n> ${ANSWER_ABOVE.en}\n> Please decide`, 'Yes'],
  [`Sim\n${ANSWER_ABOVE.pt}\nqualquer coisa`, 'Sim'],
  ['Yes, please.\n-- \nAna Lobo\nHead of terminals', 'Yes, please.'],
  ['No, wait.\n\nSent from my phone', 'No, wait.'],
  ['', ''],
];
test.each([...PLANER, ...OURS])('%# what was written above the quote', (text, written) => {
  expect(trimReply(text)).toBe(written);
  expect(trimReply(text.replaceAll('\n', '\r\n'))).toBe(written);
});

test('no text is too strange to be trimmed', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.oneof(fc.string(), fc.constantFrom('> a', 'On x wrote:', 'Em x escreveu:', '-- ', 'De: a')),
      ),
      (lines) => {
        const text = lines.join('\n');
        expect(trimReply(text).length).toBeLessThanOrEqual(text.length);
      },
    ),
    { numRuns: 200 },
  );
});

test.each([
  ...[
    'yes',
    'Yes.',
    'YES!',
    'Approved',
    'approved, thanks',
    'ok',
    'I agree',
    'Hi all,\nyes',
    'Yes\nAna Lobo',
    'Yes, thank you\n\nBest regards\nAna',
  ],
  ...[
    'sim',
    'Sim, obrigada.',
    'Aprovado',
    'De acordo',
    'Olá,\nsim\nCumprimentos,\nAna',
    'concordo',
    'Sim, por favor',
  ],
])('“%s” is a yes', (written) => {
  expect(readDecision(written)).toEqual({ says: 'approve' });
});

test.each([
  ['no, too expensive', 'too expensive'],
  ['No - we have three of them', 'we have three of them'],
  ['Declined: not this year', 'not this year'],
  ['não, é caro', 'é caro'],
  ['Não aprovo: já temos três', 'já temos três'],
  ['No\nWe have three of them.\nAna', 'We have three of them.'],
])('“%s” is a no that says why', (written, words) => {
  expect(readDecision(written)).toEqual({ says: 'decline', words });
});

test.each([
  ['', 'nothing'],
  ['no', 'noReason'],
  ['Não.', 'noReason'],
  ['yes, but only two of them', 'notPlain'],
  ['Yes?', 'notPlain'],
  ['ok let me think', 'notPlain'],
  ['What does it cost?', 'notPlain'],
  ['No problem, go ahead', 'notPlain'],
  ['yesterday I said so', 'notPlain'],
  ['Nothing against it', 'notPlain'],
  ['Sim, mas só para a semana', 'notPlain'],
  ['I do not approve of yes-men', 'notPlain'],
  ['Yes\nOnly if Bia agrees too', 'notPlain'],
])('“%s” is not guessed: %s', (written, why) => {
  expect(readDecision(written)).toEqual({ says: 'unclear', why });
});

test.each<[string, Record<string, string>, string, boolean]>([
  ['a person', {}, 'ana@solvarra.example', false],
  ['a person whose program says so (RFC 3834, 5)', { 'auto-submitted': 'no' }, 'ana@solvarra.example', false],
  ['an absence (RFC 3834, 5.1)', { 'auto-submitted': 'auto-replied' }, 'ana@solvarra.example', true],
  [
    'a notice with a comment (RFC 3834, 5)',
    { 'auto-submitted': 'auto-generated (daily)' },
    'ana@solvarra.example',
    true,
  ],
  [
    'a delivery report (RFC 3464)',
    { 'content-type': 'multipart/report; report-type=delivery-status' },
    'x@solvarra.example',
    true,
  ],
  ['a list (RFC 2919)', { 'list-id': '<crew.solvarra.example>' }, 'ana@solvarra.example', true],
  ['bulk', { precedence: 'bulk' }, 'ana@solvarra.example', true],
  ['the postmaster', {}, 'MAILER-DAEMON@solvarra.example', true],
])('recognised as automatic or not: %s', (_, headers, from, expected) => {
  expect(isAutomatic(new Map(Object.entries(headers)), from)).toBe(expected);
});

test('a bounce is recognised by its empty envelope (RFC 5321, 4.5.5)', () => {
  expect(isAutomatic(new Map(), 'x@solvarra.example', '')).toBe(true);
});

test('a mail leaves nothing of what is not known, and its subject stays one line', () => {
  const { subject, text } = writeMail(DEFAULT_MAIL_TEXTS.ask, 'en', {
    number: '17',
    title: 'A\nB',
    name: 'Ana',
  });
  expect(subject).toBe('[17] Please decide: A B');
  expect(text).not.toMatch(/\{|\n{3}/);
});

test('every text has the same blanks in both languages', () => {
  const blanks = (words: string): string[] => [...new Set(words.match(/\{\w+\}/g))].sort();
  for (const name of MAIL_TEMPLATES) {
    const { en, pt } = DEFAULT_MAIL_TEXTS[name];
    expect([name, blanks(pt.subject), blanks(pt.text)]).toEqual([name, blanks(en.subject), blanks(en.text)]);
  }
});

test('what people wrote is text in HTML too', () => {
  const html = toHtml('<img src=x onerror=alert(1)>\n\nhttps://listo.example/a?b=1&c=2');
  expect(html).not.toContain('<img');
  expect(html).toContain('<a href="https://listo.example/a?b=1&amp;c=2">');
});

test.each([
  ['solved', true],
  ['  Solved!\n\nOn Monday …', true],
  ['That was it.', true],
  ['Está resolvido', true],
  ['Solved, thank you!', true],
  ['Resolvido, obrigado', true],
  ['Solved, but please look at the noise.', false],
  ['Thanks', false],
  ['not solved', false],
  ['', false],
])('whether “%s” says that it was it: %s', (written, isSo) => expect(readSolved(written)).toBe(isSo));
