/** Ways in which people begin before they come to the matter, in both languages. */
const BEGINNINGS =
  /^(?:(?:hi|hello|hey|dear|good (?:morning|afternoon|evening|day)|ol[áa]|bom dia|boa (?:tarde|noite)|car[oa]s?|all|team|everyone|everybody|there|folks|pessoal|a todos|please|por favor|sorry|desculpem?|(?:can|could|would) (?:someone|anyone|somebody|anybody|you)(?: please)?|algu[ée]m pode|podem?|help(?: me)?|ajudem)(?=[\s,.!:;-]|$)[\s,.!:;-]*)+/iu;
/** A first line of a letter that calls someone; by name only where a comma or colon says so. */
const SALUTATION =
  /^\s*(?:hi|hello|hey|dear|good (?:morning|afternoon|evening|day)|ol[áa]|bom dia|boa (?:tarde|noite)|car[oa]s?)(?:(?: [\p{L}.]+){1,3}\s*[,:]|\s*[,!:.]?)\s*\n/iu;
const ENDINGS = /(?:[\s,.!-]+(?:thanks(?: a lot)?|thank you|thx|obrigad[oa]|cheers|pls|please))+[\s.!]*$/iu;
/** What a letter closes with, alone or with a name, and the few short lines of a name below it that are no sentence. */
const CLOSING =
  /\n[ \t]*(?:(?:(?:many )?thanks|thank you|thx)(?: (?:a lot|so much|very much|in advance|again|for your help))*|(?:(?:best|kind|warm) )?regards|cheers|best(?=[,.!]?\s*(?:\n|$))|(?:muito )?obrigad[oa]|(?:(?:com os )?melhores )?cumprimentos|atenciosamente|abra[çc]os?)(?:[ ,]+[\p{L}.]+){0,3}[ \t]*[,.!]?[ \t]*(?:\n(?:[^\n]{0,59}[^\n.?!])?){0,5}$/iu;

/** Beginnings are looked for so far from the start: however long a text is, it is read at once. */
const START = 400;

function withoutStart(text: string, beginning: RegExp): string {
  return text.slice(0, START).replace(beginning, '') + text.slice(START);
}

/** Without what someone says before they come to the matter. */
export const withoutBeginning = (text: string): string => withoutStart(text, BEGINNINGS);

/** Closings are looked for so far from the end: however long a text is, it is read at once. */
const END = 400;

function withoutEnding(text: string, ending: RegExp): string {
  const from = Math.max(0, text.length - END);
  return text.slice(0, from) + text.slice(from).replace(ending, '');
}

/**
 * What is said without greetings, thanks and the names below a letter; all of it where nothing else is said.
 * @example withoutCourtesies('Dear Bia,\nthe kiosk is dead.\nBest regards\nTomás') // 'the kiosk is dead.'
 */
export function withoutCourtesies(text: string): string {
  const letter = withoutStart(withoutEnding(text.trim(), CLOSING), SALUTATION).trim();
  const bare = withoutEnding(withoutBeginning(letter), ENDINGS).trim();
  return bare === '' ? text.trim() : bare;
}

const GREETING =
  /^(?:(?:hi|hello|hey|good (?:morning|afternoon|evening|day)|ol[áa]|oi|bom dia|boa (?:tarde|noite))(?: (?:there|all|everyone|again|pessoal|a todos))?[\s,.!]*)+$/iu;
const THANKS =
  /^(?:(?:ok(?:ay)?|great|perfect|super|[óo]timo|perfeito|certo)[\s,.!]*)?(?:(?:many |muito )?(?:thanks|thank you|thx|cheers|obrigad[oa])(?: (?:a lot|so much|very much|again|all|everyone|for your help|pela ajuda|por tudo|a todos|mais uma vez))*[\s,.!]*)+$/iu;
/** Longer texts are never courtesies alone. */
const LONGEST_COURTESY = 80;

/**
 * What is said where nothing but a courtesy is said; null: there is more to it.
 * @example courtesyOf('Bom dia!') // 'greeting'
 */
export function courtesyOf(text: string): 'greeting' | 'thanks' | null {
  const said = text.trim();
  if (said.length > LONGEST_COURTESY) return null;
  if (GREETING.test(said)) return 'greeting';
  return THANKS.test(said) ? 'thanks' : null;
}
