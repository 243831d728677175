import { createContext, useContext } from 'react';
import type { Language, LocalText } from '../../core/forms';

/** The words of the language in use: `t` for the catalogue's, `local` for what the data says in several. */
export type Words = {
  language: Language;
  /** A count as the language writes it; `isMore`: it was counted so far only. */
  count(value: number, isMore?: boolean): string;
  t(key: string, values?: Record<string, unknown>): string;
  local(text: LocalText): string;
};

export const WordsContext = createContext<Words | null>(null);

/** The same object until the language changes. */
export function useWords(): Words {
  const words = useContext(WordsContext);
  if (!words) throw new Error('words are used outside of their provider');
  return words;
}
