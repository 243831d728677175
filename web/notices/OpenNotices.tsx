import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import '../messages/noticesWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { NoticeWords } from './OpenWords';
import classes from './Open.module.css';

/** How often the page asks again: it is read without a session, so nothing comes live (ms). */
const AGAIN_MS = 20_000;

/** What everyone may read without signing in; on a wall in letters that are read from afar (`?wall`). */
export function OpenNotices() {
  const { t } = useWords();
  const [search] = useSearchParams();
  const { data, error, refetch, dataUpdatedAt } = useQuery({
    queryKey: ['notices', 'open'],
    refetchInterval: AGAIN_MS,
    queryFn: () => call(api.notices.open),
  });
  const at = new Date(dataUpdatedAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
  return (
    <main className={classes.page} data-wall={search.has('wall') || undefined}>
      <h1>{t('notices/open/title')}</h1>
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {data?.length === 0 && <p className={classes.quiet}>{t('notices/open/none')}</p>}
      {data?.map((notice) => (
        <NoticeWords key={notice.id} notice={notice} />
      ))}
      {data && <p className={classes.at}>{t('notices/open/at', { when: at })}</p>}
    </main>
  );
}
