import { Suspense } from 'react';
import { Link, useParams } from 'react-router';
import { ArticleText } from '../../knowledge/ArticleText';
import { useArticle } from '../../knowledge/useKnowledge';
import '../../messages/knowledgeWords';
import { useWords } from '../../messages/useWords';
import { Waiting } from '../../ui/Waiting';
import classes from './Articles.module.css';

/** An article that everyone may read, for those who are not signed in, or cannot be. */
export function OpenArticle() {
  const { t, local } = useWords();
  const { id = '' } = useParams();
  const { data, isPending } = useArticle(id);
  if (isPending) return <Waiting />;
  return (
    <main className={classes.article}>
      <Link to={`/ask/articles/${id}`}>{t('knowledge/signInFirst')}</Link>
      {data ? (
        <>
          <h1 lang={data.language}>{data.title}</h1>
          <p className={classes.quiet}>{local(data.teamName)}</p>
          <Suspense fallback={<Waiting />}>
            <ArticleText body={data.body} lang={data.language} />
          </Suspense>
        </>
      ) : (
        <p>{t('knowledge/openGone')}</p>
      )}
    </main>
  );
}
