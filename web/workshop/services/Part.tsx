import type { ReactNode } from 'react';
import type { EditedService } from '../../../contract/services';
import { useWords } from '../../messages/useWords';
import classes from './services.module.css';

type Problems = EditedService['problems'];

/** A part of the page: its name, its sentences, and what is wrong with it. */
export function Part({
  name,
  problems = [],
  children,
}: {
  name: string;
  problems?: Problems;
  children: ReactNode;
}) {
  const { t } = useWords();
  return (
    <section
      id={`part-${name}`}
      tabIndex={-1}
      className={classes.part}
      aria-label={t(`services/parts/${name}`)}
    >
      <h2>{t(`services/parts/${name}`)}</h2>
      <div>
        {children}
        {problems.map(({ code, at, detail }, i) => (
          <p key={i} className={classes.problem}>
            {at && <strong>{at}: </strong>}
            {t(`services/problems/${code}`, { detail })}
          </p>
        ))}
      </div>
    </section>
  );
}
