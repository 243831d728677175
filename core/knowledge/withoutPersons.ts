const MAIL = /[\p{L}\p{N}._%+-]+@[\p{L}\p{N}.-]+\.\p{L}{2,}/gu;
const NUMBER = /(?<![\p{L}\p{N}])\+?\d(?:[ ().-]?\d){6,}(?!\p{N})/gu;
const CALLED = /@\[[^\]]*\]\([^)]*\)/gu;

const escape = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/**
 * A text without what says who it was: names of the people concerned, mail addresses, telephone and card numbers.
 * @param names full names; each of their parts of three letters and more goes as well
 * @example withoutPersons('Tomás rang: 912 345 678', ['Tomás Vieira']) // '… rang: …'
 */
export function withoutPersons(text: string, names: string[]): string {
  const parts = [...new Set(names.flatMap((name) => [name, ...name.split(/\s+/)]))]
    .filter((part) => part.length > 2)
    .sort((one, other) => other.length - one.length);
  let clean = text.replace(CALLED, '…').replace(MAIL, '…').replace(NUMBER, '…');
  if (parts.length > 0)
    clean = clean.replace(
      new RegExp(`(?<![\\p{L}\\p{N}])(?:${parts.map(escape).join('|')})(?![\\p{L}\\p{N}])`, 'giu'),
      '…',
    );
  return clean.replace(/…(?:[ ,]*…)+/g, '…');
}
