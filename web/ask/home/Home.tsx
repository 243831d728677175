import { lazy, Suspense, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { NoticeBands } from '../../notices/Bands';
import { Decisions } from './Decisions';
import classes from './Home.module.css';
import { Places } from './Places';
import { Subjects } from './Subjects';
import { Results } from './Results';
import { Yours } from './Yours';

/** It comes once the page is there: who has nothing waits for nothing. */
const OnHome = lazy(() => import('../things/OnHome').then(({ OnHome: part }) => ({ default: part })));

function firstNameOf(name: string): string {
  return name.startsWith('Capt. ') ? name : name.split(' ')[0]!;
}

/** Ask: one field, what fits as one types, what is one's own, and where to start from. */
export function Home() {
  const { t } = useWords();
  const me = useMe();
  const [search] = useSearchParams();
  const [query, setQuery] = useState('');
  const forPerson = search.get('for');
  return (
    <div className={classes.page}>
      <NoticeBands query={query} forPerson={forPerson} />
      <h1 className={classes.title}>{t('ask/title', { name: firstNameOf(me.name) })}</h1>
      <input
        className={classes.field}
        type="search"
        autoFocus
        value={query}
        placeholder={t('ask/placeholder')}
        aria-label={t('ask/placeholder')}
        onChange={({ target }) => setQuery(target.value)}
      />
      {query.trim() !== '' && <Results query={query} forPerson={forPerson} />}
      <Decisions />
      <Yours />
      <Suspense fallback={null}>
        <OnHome />
      </Suspense>
      <Places forPerson={forPerson} />
      <p className={classes.all}>
        <Link to="/ask/articles">{t('ask/allArticles')}</Link>
        {me.hasAssistant && (
          <>
            {' · '}
            <Link to="/ask/assistant">{t('ask/talkAssistant')}</Link>
          </>
        )}
      </p>
      <Subjects forPerson={forPerson} />
    </div>
  );
}
