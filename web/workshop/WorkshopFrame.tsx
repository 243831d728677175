import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { useMe } from '../api/queries';
import { addWorkshopWords } from '../messages/workshopWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import { listSubjects } from './subjects';
import classes from './Workshop.module.css';

addWorkshopWords();

/** A page of the Workshop: its subjects in one line above. */
export function WorkshopFrame({ lead, children }: { lead?: string; children: ReactNode }) {
  const { t } = useWords();
  const me = useMe();
  if (!me.areas.includes('workshop')) return <Lost />;
  return (
    <div className={classes.page}>
      <div className={classes.head}>
        <h1>{t('workshop/title')}</h1>
        {listSubjects(me).map((subject) => (
          <NavLink key={subject} to={`/workshop/${subject}`}>
            {t(`workshop/${subject}`)}
          </NavLink>
        ))}
      </div>
      {lead && <p className={classes.lead}>{lead}</p>}
      {children}
    </div>
  );
}
