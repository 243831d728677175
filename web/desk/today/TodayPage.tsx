import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { ListRow } from '../../../contract/worklists';
import { isAgent } from '../../../core/rights';
import { readLive, tightestClock } from '../../../core/targets';
import { call } from '../../api/call';
import { useCalendars } from '../../api/calendars';
import { useChanges } from '../../api/changes';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import '../../messages/listsWords';
import '../../messages/todayWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { SurgeBand } from '../worklist/SurgeBand';
import { rowIdOf, useRowWords, type RowWords } from '../worklist/useRowWords';
import { addressOf, TeamCard } from './TeamCard';
import classes from './Today.module.css';

const OWN = 9;

/** What is left of a row's tightest clock. */
function Left({ row, words }: { row: ListRow; words: RowWords }) {
  const calendars = useCalendars();
  const clock = tightestClock(row.clocks);
  const now = useNow(15_000, clock?.dueAt ?? undefined);
  const live = clock && readLive(clock, calendars?.[clock.calendarId ?? ''], now);
  return <small data-tone={live?.tone}>{words.left(live, true)}</small>;
}

/** The Desk's first page: what one could move now, beside how one's teams stand. */
export function TodayPage() {
  const { t, local } = useWords();
  const me = useMe();
  const words = useRowWords();
  const own = useQuery({
    queryKey: ['worklist', 'today'],
    queryFn: () =>
      call(api.worklists.page, {
        params: { id: 'nextUp' },
        query: { order: 'next', groupBy: 'none', limit: OWN },
      }),
  });
  const figures = useQuery({ queryKey: ['listFigures', 'today'], queryFn: () => call(api.figures.today) });
  useChanges(() => Promise.all([own.refetch(), figures.refetch()]));
  if (!me.areas.includes('desk')) return <Lost />;
  const teamIds = (figures.data ?? []).map(({ id }) => id);
  const sum = (key: 'dueToday' | 'late'): number =>
    (figures.data ?? []).reduce((total, team) => total + team[key], 0);
  return (
    <div className={classes.page}>
      <section aria-label={t('today/title')}>
        <h1>
          {!isAgent(me)
            ? t('today/reader')
            : own.data?.total.count === 0
              ? t('today/nothing')
              : t('today/you', { name: me.name.split(' ')[0], count: own.data?.total.count ?? '…' })}
        </h1>
        {figures.data && (
          <p className={classes.lead}>
            {(['late', 'dueToday'] as const).map((name) => (
              <Link key={name} data-sum={name} to={addressOf(name, teamIds)}>
                {t(name === 'late' ? 'today/lateNow' : 'today/dueToday', { count: sum(name) })}
              </Link>
            ))}
          </p>
        )}
        <div className={classes.surges}>
          <SurgeBand />
        </div>
        {own.error ? (
          <ProblemNote error={own.error} onRetry={() => void own.refetch()} />
        ) : !own.data ? (
          <Waiting />
        ) : (
          <ol className={classes.own}>
            {own.data.rows.map((row) => (
              <li key={rowIdOf(row)} data-number={row.number} title={words.reason(row.reasons).whole}>
                <Link to={`/desk/nextUp/${row.number}`}>
                  <b>
                    <bdi>{row.title}</bdi>
                  </b>
                  <span>
                    {row.requester.name} · {local(row.service)} · {words.who(row).words}
                  </span>
                  <Left row={row} words={words} />
                </Link>
              </li>
            ))}
          </ol>
        )}
        <nav className={classes.ways}>
          {isAgent(me) ? (
            <>
              <Link to="/desk/nextUp">{t('today/all')}</Link>
              <Link to="/desk/mine">{t('today/mine')}</Link>
              <Link to="/desk/raise">{t('today/raise')}</Link>
              <Link to="/desk/conversations">{t('today/conversations')}</Link>
              <Link to="/desk/time">{t('today/time')}</Link>
            </>
          ) : (
            <Link to="/desk/everything">{t('worklists/everything')}</Link>
          )}
        </nav>
      </section>
      <div className={classes.teams}>
        {figures.error ? (
          <ProblemNote error={figures.error} onRetry={() => void figures.refetch()} />
        ) : (
          (figures.data ?? []).map((team) => <TeamCard key={team.id} team={team} />)
        )}
      </div>
    </div>
  );
}
