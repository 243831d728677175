import type { LocalText } from './types';

/**
 * A text in every language: where one is left empty, the other stands in.
 * @example completeText({ en: 'Gate', pt: ' ' }) // { en: 'Gate', pt: 'Gate' }
 */
export const completeText = ({ en, pt }: LocalText): LocalText => ({
  en: en.trim() === '' ? pt : en,
  pt: pt.trim() === '' ? en : pt,
});
