import { useWords } from '../../messages/useWords';
import classes from './Matters.module.css';

/** How sure it is of each matter, as bars with their figures. */
export function Sureness({ likely }: { likely: { name: string | null; sureness: number }[] }) {
  const { t } = useWords();
  return (
    <ul className={classes.likely}>
      {likely.map(({ name, sureness }, i) => (
        <li key={i}>
          <span>{name ?? t('assistant/workshop/elsewhere')}</span>
          <span className={classes.bar} aria-hidden>
            <span style={{ width: `${100 * sureness}%` }} />
          </span>
          <b>{Math.round(100 * sureness)} %</b>
        </li>
      ))}
    </ul>
  );
}
