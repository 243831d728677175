import { useMemo, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { writeCount } from './i18n';
import { WordsContext, type Words } from './useWords';

/** Asks for the words once for the whole application: a long list uses them a thousand times. */
export function WordsProvider({ children }: { children: ReactNode }) {
  const { t, i18n } = useTranslation();
  const words = useMemo((): Words => {
    const language = i18n.language === 'pt' ? 'pt' : 'en';
    return {
      language,
      t: (key, values = {}) => t(key, values),
      local: (text) => text[language],
      count: (value, isMore = false) => `${writeCount(value, language)}${isMore ? '+' : ''}`,
    };
  }, [t, i18n.language]);
  return <WordsContext value={words}>{children}</WordsContext>;
}
