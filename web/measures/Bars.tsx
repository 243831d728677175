import type { TallyView } from '../../contract/compliance';
import { STANDINGS } from '../../contract/complianceNames';
import { useWords } from '../messages/useWords';
import { LOCALES } from '../../core/forms';
import classes from './Measures.module.css';

/** A share as it is read: whole percents, with one decimal near the ends, where it matters. */
export function useShare(): (share: number | null) => string {
  const { language } = useWords();
  return (share) => {
    if (share === null) return '–';
    const digits = share > 90 && share < 100 ? 1 : 0;
    const options = { minimumFractionDigits: digits, maximumFractionDigits: digits };
    return `${new Intl.NumberFormat(LOCALES[language], options).format(share)} %`;
  };
}

/** In time, late and still running, as wide as they are many. */
export function Bar({ tally }: { tally: TallyView }) {
  const { t } = useWords();
  const total = Math.max(1, tally.met + tally.missed + tally.running);
  return (
    <span className={classes.bar} role="img" aria-label={t('measures/bar', { ...tally })}>
      {STANDINGS.map((standing) => (
        <i key={standing} data-standing={standing} style={{ width: `${(100 * tally[standing]) / total}%` }} />
      ))}
    </span>
  );
}
