import i18next, { type FormatterModule } from 'i18next';
import { initReactI18next } from 'react-i18next';
import { LOCALES, type Language } from '../../core/forms';
import { en } from './en';

const KEY = 'listo-language';

function firstLanguage(): Language {
  const kept = localStorage.getItem(KEY) ?? navigator.language.slice(0, 2);
  return kept === 'pt' ? 'pt' : 'en';
}

/** What is counted, as opposed to what has a number for its name. */
const COUNTED = new Set(['count', 'done', 'total', 'rows', 'written', 'good', 'bad', 'tickets', 'clocks']);

/** Large counts are parted as the language does. @example writeCount(5000, 'en') // '5,000' */
export const writeCount = (value: number, language: Language): string =>
  value.toLocaleString(LOCALES[language]);

/** What is no count stays as it is. */
const COUNTS: FormatterModule = {
  type: 'formatter',
  init: () => undefined,
  add: () => undefined,
  addCached: () => undefined,
  format: (value, _format, language, options) =>
    typeof value === 'number' && COUNTED.has(String(options?.interpolationkey))
      ? writeCount(value, language === 'pt' ? 'pt' : 'en')
      : (value as string),
};

async function loadLanguage(language: Language): Promise<void> {
  if (language === 'pt' && !i18next.hasResourceBundle('pt', 'translation')) {
    const { pt } = await import('./pt');
    i18next.addResourceBundle('pt', 'translation', pt);
  }
}

/** Makes the words of the language ready, with English where a word should ever be missing. */
export async function startMessages(): Promise<void> {
  await i18next
    .use(initReactI18next)
    .use(COUNTS)
    .init({
      resources: { en: { translation: en } },
      lng: 'en',
      fallbackLng: 'en',
      interpolation: { escapeValue: false, alwaysFormat: true },
      // Some keys hold a full stop, so the separator is another sign.
      keySeparator: '/',
      nsSeparator: false,
      // A word that is missing in every language is a fault of a page.
      saveMissing: true,
      missingKeyHandler: (
        _languages,
        _namespace,
        key,
        _shown,
        _isUpdate,
        options: { defaultValue?: string },
      ) => {
        if (options.defaultValue === undefined) console.error(`no words for ${key}`);
      },
    });
  await setLanguage(firstLanguage());
}

export async function setLanguage(language: Language): Promise<void> {
  await loadLanguage(language);
  await i18next.changeLanguage(language);
  localStorage.setItem(KEY, language);
  document.documentElement.lang = language;
}
