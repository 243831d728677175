import { LOCALES } from '../../core/forms';
import { useWords } from '../messages/useWords';

/** Euro cents as money in the language's writing. */
export function useMoney(): (cents: number) => string {
  const { language } = useWords();
  const format = new Intl.NumberFormat(LOCALES[language], {
    style: 'currency',
    currency: 'EUR',
    maximumFractionDigits: 0,
  });
  return (cents) => format.format(cents / 100);
}
