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
/** What may stand beside a yes and says nothing more; of those that begin alike, the longest first. */
const POLITE =
  /(?:com os melhores cumprimentos|best regards|kind regards|from my side|many thanks|por favor|go ahead|of course|very much|thank you|from me|por mim|please|thanks?|cumprimentos|obrigad[oa]|cheers|regards|claro|abraco|muito|a lot|best|kind|fine|sure)[\s,.!:)–—-]*/y;
const GREETING =
  /^(?:hi|hello|dear|good (?:morning|afternoon)|ola|bom dia|boa tarde|car[oa])\b[^\n.!?]{0,40}[,!.]?\s*$/;
const NAME_WORD = /^\p{Lu}[\p{L}.'’-]*$/u;
const MOST_NAMES = 4;
/** So many letters of a line, and lines of an answer, are looked at: nobody writes more beside a decision. */
const LONGEST_LINE = 500;
const MOST_LINES = 200;

/** Whether a line says nothing but politeness. Work: one pass, as each word is read once. */
function isPolite(line: string): boolean {
  if (line.length > LONGEST_LINE) return false;
  for (let at = 0; at < line.length; at = POLITE.lastIndex) {
    POLITE.lastIndex = at;
    if (!POLITE.test(line)) return false;
  }
  return true;
}

/** A name under a letter: up to four words, each beginning large. */
function isName(line: string): boolean {
  if (line.length > LONGEST_LINE) return false;
  const words = line.split(/\s+/);
  return words.length <= MOST_NAMES && words.every((word) => NAME_WORD.test(word));
}

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
    .filter((line) => line !== '')
    .slice(0, MOST_LINES + 1);
  // More than anyone writes is read by a person.
  if (lines.length > MOST_LINES) return { says: 'unclear', why: 'notPlain' };
  if (
    lines.length > 0 &&
    lines[0]!.length <= LONGEST_LINE &&
    GREETING.test(foldText(lines[0]!)) &&
    !beginningOf(lines[0]!)
  )
    lines.shift();
  const [first] = lines;
  if (first === undefined) return { says: 'unclear', why: 'nothing' };
  const begun = beginningOf(first);
  if (!begun) return { says: 'unclear', why: 'notPlain' };
  const others = lines.slice(1).filter((line) => !isName(line) && !isPolite(foldText(line)));
  const rest = strip(begun.rest);
  if (begun.isYes) {
    const isPlain = isPolite(foldText(rest)) && others.length === 0;
    return isPlain ? { says: 'approve' } : { says: 'unclear', why: 'notPlain' };
  }
  const words = [rest, ...others].filter(Boolean).join('\n').trim();
  // “No problem, go ahead” begins with a no and is none.
  if (/^(?:problem|worries|objection|problema|ha problema)/.test(foldText(words)))
    return { says: 'unclear', why: 'notPlain' };
  return words === '' ? { says: 'unclear', why: 'noReason' } : { says: 'decline', words };
}
