import { Link } from 'react-router';
import { Passage } from '../../knowledge/Passage';
import { useFoundArticles } from '../../knowledge/useKnowledge';
import { useWords } from '../../messages/useWords';
import { Waiting } from '../../ui/Waiting';
import home from '../home/Home.module.css';
import classes from './Articles.module.css';

const MOST = 20;

type Props = {
  q: string;
  /** Only what this team wrote; empty: any. */
  team: string;
  /** The name of the team that wrote an article. */
  writtenBy(id: string): string;
};

/** The articles that answer some words, the best first. */
export function FoundList({ q, team, writtenBy }: Props) {
  const { t } = useWords();
  const found = useFoundArticles(q, 'ask', { most: MOST, ...(team && { team }) });
  if (!found) return <Waiting />;
  if (found.length === 0) return <p className={home.quiet}>{t('knowledge/noneFits')}</p>;
  return (
    <ol className={classes.list}>
      {found.map(({ id, title, passage, helped, judged }) => (
        <li key={id}>
          <Link className={home.found} to={`/ask/articles/${id}`}>
            <strong>{title}</strong>
            <small>
              <Passage parts={passage} />
            </small>
            <small>
              {writtenBy(id)}
              {judged > 0 && ` · ${t('ask/helped', { helped, judged })}`}
            </small>
          </Link>
        </li>
      ))}
    </ol>
  );
}
