import type { ReactNode } from 'react';
import { Link, useLocation } from 'react-router';
import { useMe } from '../api/queries';
import { addWorkshopWords } from '../messages/workshopWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import { SettingFinder } from './find/SettingFinder';
import { useMarkedSetting } from './find/useMarkedSetting';
import { listSubjects } from './find/subjects';
import classes from './Workshop.module.css';

addWorkshopWords();

/** A page of the Workshop: which it is, and the way to all others above. `isPath`: it is the first, which has its own. */
export function WorkshopFrame({
  lead,
  isPath = false,
  children,
}: {
  lead?: string;
  isPath?: boolean;
  children: ReactNode;
}) {
  const { t } = useWords();
  const me = useMe();
  const { pathname } = useLocation();
  const page = useMarkedSetting();
  if (!me.areas.includes('workshop')) return <Lost />;
  const subject = listSubjects(me).find((each) => pathname.startsWith(`/workshop/${each}`));
  return (
    <div className={classes.page} ref={page}>
      <div className={classes.head}>
        {subject === undefined ? (
          <h1>{t('workshop/title')}</h1>
        ) : (
          <>
            <Link to="/workshop">{t('workshop/title')}</Link>
            <h1>
              <Link to={`/workshop/${subject}`}>{t(`workshop/${subject}`)}</Link>
            </h1>
          </>
        )}
        {!isPath && <SettingFinder />}
      </div>
      {lead && <p className={classes.lead}>{lead}</p>}
      {children}
    </div>
  );
}
