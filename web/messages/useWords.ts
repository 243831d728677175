import { useTranslation } from 'react-i18next';
import type { Language, LocalText } from '../../core/forms';

/** The words of the language in use: `t` for the catalogue's, `local` for what the data says in several. */
export function useWords() {
  const { t: translate, i18n } = useTranslation();
  const language: Language = i18n.language === 'pt' ? 'pt' : 'en';
  return {
    language,
    t: (key: string, values: Record<string, unknown> = {}): string => translate(key, values),
    local: (text: LocalText): string => text[language],
  };
}

export type Words = ReturnType<typeof useWords>;
