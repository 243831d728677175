import { SPOKEN, type Spoken } from '../../core/assistant';
import type { Language } from '../../core/forms';
import { toPlainText } from '../../core/knowledge';
import type { Said } from './model';

/** So much of an article says which it was and how it begins. */
const MOST_OF_ARTICLE = 300;

const shorten = (text: string): string =>
  text.length <= MOST_OF_ARTICLE ? text : `${text.slice(0, text.lastIndexOf(' ', MOST_OF_ARTICLE))} …`;

/** Said to the person alone. */
const PASSED_OVER = new Set(['greeting', 'toldMasked', 'confidential']);

/** One turn in words; null: nothing that those who take over need. */
function wordsOf({ say, text, words, choices = [], articles = [] }: Said, language: Language): string | null {
  if (PASSED_OVER.has(say)) return null;
  const names = [...choices.map(({ name }) => name), ...articles.map(({ title }) => title)].join(' · ');
  if (say === 'article') return `${names}\n${shorten(toPlainText(text ?? ''))}`;
  const said = words ?? text ?? SPOKEN[language][say as keyof Spoken];
  return [said, names].filter(Boolean).join(' · ') || null;
}

/** A conversation as one text, a line for each turn, for those who take over. */
export function transcriptOf(turns: { isByPerson: boolean; said: Said }[], language: Language): string {
  return turns
    .flatMap(({ isByPerson, said }) => {
      const words = wordsOf(said, language);
      return words === null ? [] : [`${isByPerson ? '›' : '—'} ${words}`];
    })
    .join('\n');
}
