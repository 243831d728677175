import i18next from 'i18next';
import type { Language } from '../../core/forms';

/** Adds the words of a part of the application to the catalogue; they come with its pages, not with the first load. */
export function addWords(name: string, words: Record<Language, object>): void {
  i18next.addResourceBundle('en', 'translation', { [name]: words.en }, true, true);
  const addPt = (): void =>
    void i18next.addResourceBundle('pt', 'translation', { [name]: words.pt }, true, true);
  if (i18next.hasResourceBundle('pt', 'translation')) addPt();
  // Portuguese may be chosen later: its bundle is then made first, and this is added to it.
  else
    i18next.on('languageChanged', (language) => {
      if (language === 'pt') addPt();
    });
}
