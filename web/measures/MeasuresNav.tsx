import { NavLink } from 'react-router';
import '../messages/boardsWords';
import '../messages/measuresWords';
import { useWords } from '../messages/useWords';
import workshop from '../workshop/Workshop.module.css';

/** The pages of figures. @param search what stays in the address from one page of targets to the other */
export function MeasuresNav({ search = '' }: { search?: string }) {
  const { t } = useWords();
  return (
    <div className={workshop.head}>
      <h1>{t('measures/title')}</h1>
      <NavLink to="/measures/boards">{t('boards/boards')}</NavLink>
      {(['compliance', 'replay'] as const).map((page) => (
        <NavLink key={page} to={`/measures/${page}${search}`}>
          {t(`measures/${page}`)}
        </NavLink>
      ))}
    </div>
  );
}
