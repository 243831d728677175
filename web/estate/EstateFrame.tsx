import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useMe } from '../api/queries';
import '../messages/estateWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import classes from './Estate.module.css';

/** A page of the Estate: what it is about, the way back to all things, and what can be done. */
export function EstateFrame({
  title,
  lead,
  isFirst = false,
  actions,
  children,
}: {
  title: ReactNode;
  lead?: ReactNode;
  isFirst?: boolean;
  actions?: ReactNode;
  children: ReactNode;
}) {
  const { t } = useWords();
  const me = useMe();
  if (!me.areas.includes('estate')) return <Lost />;
  return (
    <div className={classes.page}>
      <div className={classes.head}>
        {!isFirst && <Link to="/estate">{t('estate/title')}</Link>}
        <h1>{title}</h1>
        <p>{lead}</p>
        <div>{actions}</div>
      </div>
      {children}
    </div>
  );
}
