import { Link } from 'react-router';
import { Passage } from '../../knowledge/Passage';
import { useFoundArticles } from '../../knowledge/useKnowledge';
import { useWords } from '../../messages/useWords';
import { Waiting } from '../../ui/Waiting';
import home from '../home/Home.module.css';
import classes from './Articles.module.css';

const MOST = 20;

/** The articles that answer some words, the best first. */
export function FoundList({
  q,
  among,
  teamOf,
}: {
  q: string;
  among: { id: string; teamId: string }[];
  teamOf(id: string): string;
}) {
  const { t } = useWords();
  const found = useFoundArticles(q, 'ask', { most: MOST });
  if (!found) return <Waiting />;
  const shown = found.flatMap((article) => {
    const known = among.find(({ id }) => id === article.id);
    return known ? [{ ...article, teamId: known.teamId }] : [];
  });
  if (shown.length === 0) return <p className={home.quiet}>{t('knowledge/noneFits')}</p>;
  return (
    <ol className={classes.list}>
      {shown.map(({ id, title, passage, helped, judged, teamId }) => (
        <li key={id}>
          <Link className={home.found} to={`/ask/articles/${id}`}>
            <strong>{title}</strong>
            <small>
              <Passage parts={passage} />
            </small>
            <small>
              {teamOf(teamId)}
              {judged > 0 && ` · ${t('ask/helped', { helped, judged })}`}
            </small>
          </Link>
        </li>
      ))}
    </ol>
  );
}
