import type { TallyView } from '../../contract/compliance';
import { STANDINGS } from '../../contract/complianceNames';
import { useWords } from '../messages/useWords';
import classes from './Measures.module.css';

/** A share as it is read: whole percents, with one decimal near the ends, where it matters. */
export const showShare = (share: number | null): string =>
  share === null ? '–' : `${share.toFixed(share > 90 && share < 100 ? 1 : 0)} %`;

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
