import { foldText } from '../text';

/** What an answer to an approval says; `unclear` is asked about, never guessed. */
export type MailDecision =
  | { says: 'approve' }
  | { says: 'decline'; words: string }
  | { says: 'unclear'; why: 'nothing' | 'noReason' | 'notPlain' };

const YES = [
  'approved',
  'i approve',
  'approve',
  'yes',
  'ok',
  'okay',
  'agreed',
  'i agree',
  'go ahead',
  'granted',
];
const SIM = [
  'aprovado',
  'aprovada',
  'aprovo',
  'sim',
  'concordo',
  'de acordo',
  'autorizado',
  'autorizo',
  'pode avancar',
];
const NO = ['declined', 'i decline', 'decline', 'no', 'not approved', 'rejected', 'i do not agree', 'denied'];
const NAO = [
  'nao aprovado',
  'nao aprovo',
  'nao concordo',
  'nao',
  'recusado',
  'recusada',
  'recuso',
  'rejeitado',
];
/** What may stand beside a yes and says nothing more. */
const POLITE =
  /^(?:(?:please|go ahead|from me|from my side|thanks?|thank you|many thanks|very much|a lot|cheers|regards|best|kind|best regards|kind regards|fine|of course|sure|por mim|por favor|obrigad[oa]|muito|cumprimentos|com os melhores cumprimentos|claro|abraco)[\s,.!:)–—-]*)*$/;
const GREETING =
  /^(?:hi|hello|dear|good (?:morning|afternoon)|ola|bom dia|boa tarde|car[oa])\b[^\n.!?]{0,40}[,!.]?\s*$/;
/** A name under a letter: up to four words, each beginning large. */
const NAME = /^(?:\p{Lu}[\p{L}.'’-]*\s*){1,4}$/u;

/** Longest first, so that “not approved” is not read as something else. */
const WORDS = [...YES, ...SIM]
  .map((words) => ({ words, isYes: true }))
  .concat([...NO, ...NAO].map((words) => ({ words, isYes: false })))
  .sort((a, b) => b.words.length - a.words.length);

/** The decision that a line begins with, and what stands after it. */
function beginningOf(line: string): { isYes: boolean; rest: string } | null {
  const folded = foldText(line);
  for (const { words, isYes } of WORDS) {
    if (!folded.startsWith(words)) continue;
    const after = folded.charAt(words.length);
    if (after !== '' && /[\p{L}\p{N}]/u.test(after)) continue;
    // Folding keeps the length of all that these languages write, so the rest is found in the line as it was written.
    return { isYes, rest: line.normalize('NFC').slice(words.length) };
  }
  return null;
}

const strip = (text: string): string => text.replace(/^[\s,.;:!–—-]+/, '').trim();

/**
 * Reads the answer to an approval, in English or Portuguese, from what was written above the quote: a yes must be
 * nothing but a yes, a no has to say why.
 * @example readDecision('no, too expensive') // { says: 'decline', words: 'too expensive' }
 */
export function readDecision(written: string): MailDecision {
  const lines = written
    .normalize('NFC')
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  if (lines.length > 0 && GREETING.test(foldText(lines[0]!)) && !beginningOf(lines[0]!)) lines.shift();
  const [first] = lines;
  if (first === undefined) return { says: 'unclear', why: 'nothing' };
  const begun = beginningOf(first);
  if (!begun) return { says: 'unclear', why: 'notPlain' };
  const others = lines.slice(1).filter((line) => !NAME.test(line) && !POLITE.test(foldText(line)));
  const rest = strip(begun.rest);
  if (begun.isYes) {
    const isPlain = (POLITE.test(foldText(rest)) || rest === '') && others.length === 0;
    return isPlain ? { says: 'approve' } : { says: 'unclear', why: 'notPlain' };
  }
  const words = [rest, ...others].filter(Boolean).join('\n').trim();
  // “No problem, go ahead” begins with a no and is none.
  if (/^(?:problem|worries|objection|problema|ha problema)/.test(foldText(words)))
    return { says: 'unclear', why: 'notPlain' };
  return words === '' ? { says: 'unclear', why: 'noReason' } : { says: 'decline', words };
}
