import { Link } from 'react-router';
import '../../messages/estateWords';
import { useWords } from '../../messages/useWords';
import home from '../home/Home.module.css';
import { AskedFor, useMyThings } from './MyThings';

/** What one has, on the first page: a way there, and what is asked about it. */
export function OnHome() {
  const { t } = useWords();
  const { data = [] } = useMyThings();
  if (data.length === 0) return null;
  return (
    <section aria-label={t('estate/mine/title')}>
      {data
        .filter(({ isAsked }) => isAsked)
        .map((thing) => (
          <AskedFor key={thing.id} thing={thing} />
        ))}
      <p className={home.all}>
        <Link to="/ask/things">{t('estate/mine/link', { count: data.length })}</Link>
      </p>
    </section>
  );
}
