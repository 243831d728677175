import { nanoid } from 'nanoid';
import { useEffect } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { ApiProblem, call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { ArticleText } from '../../knowledge/ArticleText';
import { Judge } from '../../knowledge/Judge';
import { useArticle } from '../../knowledge/useKnowledge';
import '../../messages/knowledgeWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from './Articles.module.css';

/** An article as it is read; at its end one says whether that was it. */
export function ArticlePage() {
  const { t, local, language } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { id = '' } = useParams();
  const [search] = useSearchParams();
  const number = Number(search.get('ticket')) || null;
  const { data, error, isPending, refetch } = useArticle(id);
  const isThere = data !== undefined;
  useEffect(() => {
    // It is a count; that it fails must not disturb.
    if (isThere)
      void call(api.knowledge.opened, {
        params: { id },
        body: { door: number === null ? 'ask' : 'desk', number },
        key: nanoid(),
      }).catch(() => undefined);
  }, [id, isThere, number]);
  if (isPending) return <Waiting />;
  if (error instanceof ApiProblem && error.code === 'notFound') return <Lost />;
  if (!data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  const service = data.labels[0];
  return (
    <article className={classes.article}>
      <Link to={number === null ? '/ask' : `/ask/tickets/${number}`}>{t('common/back')}</Link>
      <h1 lang={data.language}>{data.title}</h1>
      <p className={classes.quiet}>
        {t('knowledge/from', { team: local(data.teamName), when: times.when(data.publishedAt, now) })}
        {data.judged > 0 && ` · ${t('ask/helped', { helped: data.helped, judged: data.judged })}`}
        {data.language !== language &&
          ` · ${t('knowledge/onlyIn', { language: t(`knowledge/languages/${data.language}`) })}`}
        {data.mayEdit && (
          <>
            {' · '}
            <Link to={`/knowledge/articles/${id}`}>{t('knowledge/change')}</Link>
          </>
        )}
      </p>
      <ArticleText body={data.body} lang={data.language}>
        <footer className={classes.end}>
          <Judge
            articleId={id}
            door={number === null ? 'ask' : 'desk'}
            isInstead={number === null}
            number={number}
          />
          {number === null && service && (
            <Link to={`/ask/services/${service}`}>{t('knowledge/askInstead')}</Link>
          )}
        </footer>
      </ArticleText>
    </article>
  );
}
