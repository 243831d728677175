import type { ReactNode } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import { useMe } from '../api/queries';
import '../messages/estateWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import classes from './Estate.module.css';

/** The parts of the Estate: what there is, what does not work, why it breaks, what is done to it. */
const PARTS = [
  ['/estate', 'things'],
  ['/estate/notices', 'notices'],
  ['/estate/problems', 'problems'],
  ['/estate/works', 'works'],
] as const;

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
  const { pathname } = useLocation();
  const isOfThings = !PARTS.some(([path]) => path !== '/estate' && pathname.startsWith(path));
  if (!me.areas.includes('estate')) return <Lost />;
  return (
    <div className={classes.page}>
      <nav className={classes.parts} aria-label={t('estate/title')}>
        {PARTS.map(([path, name]) => (
          <NavLink key={path} to={path} end={path === '/estate'}>
            {t(`estate/parts/${name}`)}
          </NavLink>
        ))}
      </nav>
      <div className={classes.head}>
        {!isFirst && isOfThings && <Link to="/estate">{t('estate/title')}</Link>}
        <h1>{title}</h1>
        <p>{lead}</p>
        <div>{actions}</div>
      </div>
      {children}
    </div>
  );
}
