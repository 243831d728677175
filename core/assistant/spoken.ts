import type { Language } from '../forms';

/** What is said by pressing something, and asked for besides: as it is shown, and as it stands in what was said. */
export type Spoken = { yes: string; no: string; none: string; person: string; reword: string };

/** What is said by pressing something, in each language. */
export const SPOKEN: Record<Language, Spoken> = {
  en: {
    yes: 'That was it',
    no: 'Not for me',
    none: 'None of these',
    person: 'To a person, please',
    reword: 'I did not understand that. Could you say it in other words?',
  },
  pt: {
    yes: 'Era isso',
    no: 'Não é para mim',
    none: 'Nenhum destes',
    person: 'Uma pessoa, por favor',
    reword: 'Não percebi. Pode dizer por outras palavras?',
  },
};
