/** Ways in which people begin before they come to the matter, in both languages. */
const BEGINNINGS =
  /^(?:(?:hi|hello|hey|dear|good (?:morning|afternoon|evening|day)|ol[áa]|bom dia|boa (?:tarde|noite)|car[oa]s?|all|team|everyone|everybody|there|folks|pessoal|a todos|please|por favor|sorry|desculpem?|(?:can|could|would) (?:someone|anyone|somebody|anybody|you)(?: please)?|algu[ée]m pode|podem?|help(?: me)?|ajudem)(?=[\s,.!:;-]|$)[\s,.!:;-]*)+/iu;
/** A first line of a letter that calls someone, by name too. */
const SALUTATION =
  /^\s*(?:hi|hello|hey|dear|good (?:morning|afternoon|evening|day)|ol[áa]|bom dia|boa (?:tarde|noite)|car[oa]s?)(?: [\p{L}.]+){0,3}\s*[,!:.]?\s*\n/iu;
const ENDINGS = /(?:[\s,.!-]+(?:thanks(?: a lot)?|thank you|thx|obrigad[oa]|cheers|pls|please))+[\s.!]*$/iu;
/** What a letter closes with, and the few short lines of a name below it. */
const CLOSING =
  /\n\s*(?:(?:many )?thanks|thank you|thx|(?:(?:best|kind|warm) )?regards|cheers|best|(?:muito )?obrigad[oa]|(?:(?:com os )?melhores )?cumprimentos|atenciosamente|abra[çc]os?)(?=[\s,.!]|$)[^\n]{0,40}(?:\n[^\n]{0,60}){0,5}\s*$/iu;

/** Without what someone says before they come to the matter. */
export const withoutBeginning = (text: string): string => text.replace(BEGINNINGS, '');

/**
 * What is said without greetings, thanks and the names below a letter; all of it where nothing else is said.
 * @example withoutCourtesies('Dear Bia,\nthe kiosk is dead.\nBest regards\nTomás') // 'the kiosk is dead.'
 */
export function withoutCourtesies(text: string): string {
  const bare = withoutBeginning(text.replace(CLOSING, '').replace(SALUTATION, '').trim())
    .replace(ENDINGS, '')
    .trim();
  return bare === '' ? text.trim() : bare;
}
