import { Link } from 'react-router';
import type { ThingRef } from '../../contract/estate';
import { useWords } from '../messages/useWords';
import classes from './Estate.module.css';
import { SHAPES } from './useThings';

/** The shape of a standing, with its word for those who do not see it. */
export function Shape({ standing }: Pick<ThingRef, 'standing'>) {
  const { t } = useWords();
  const words = t(`estate/standings/${standing}`);
  return (
    <span className={classes.shape} role="img" aria-label={words} title={words}>
      {SHAPES[standing]}
    </span>
  );
}

/** So many stand there at once; the others open. */
const AT_ONCE = 8;

/** Things by their names, each with how it stands, and how many more there are. */
export function ThingRefs({ things, count = things.length }: { things: ThingRef[]; count?: number }) {
  const { t } = useWords();
  const rest = things.slice(AT_ONCE);
  return (
    <>
      <Listed things={things.slice(0, AT_ONCE)} count={rest.length > 0 ? AT_ONCE : count} />
      {rest.length > 0 && (
        <details>
          <summary>{t('estate/andMore', { count: count - AT_ONCE })}</summary>
          <Listed things={rest} count={count - AT_ONCE} />
        </details>
      )}
    </>
  );
}

function Listed({ things, count }: { things: ThingRef[]; count: number }) {
  const { t, local } = useWords();
  return (
    <ul className={classes.refs}>
      {things.map(({ id, name, kind, standing, state }) => (
        <li key={id}>
          <Shape standing={standing} />
          <Link to={`/estate/${id}`}>
            <bdi>{name}</bdi>
          </Link>
          <small>
            {local(kind)}
            {state !== 'inUse' && `, ${t(`estate/states/${state}`)}`}
          </small>
        </li>
      ))}
      {count > things.length && <li>{t('estate/andMore', { count: count - things.length })}</li>}
    </ul>
  );
}
