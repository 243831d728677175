import { Link } from 'react-router';
import type { TeamFigures } from '../../../contract/figures';
import { listBehind, type TeamNumber } from '../../../core/figures';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';
import classes from './Today.module.css';

/** The page of the list that a number of some teams counts. */
export function addressOf(name: TeamNumber, teamIds: string[]): string {
  const { list, where } = listBehind(name, teamIds);
  return `/desk/${list}?${new URLSearchParams({ where: JSON.stringify(where) })}`;
}

/** How a team stands; each number leads to what it counts. */
export function TeamCard({ team }: { team: TeamFigures }) {
  const { t, local } = useWords();
  const times = useTimes();
  const { id, name, days, promised, inTime, ratings, rating } = team;
  const most = Math.max(1, ...days.map(({ arrived, resolved }) => Math.max(arrived, resolved)));
  const numbers = [
    ['open', team.open, addressOf('open', [id])],
    ['unassigned', team.unassigned, addressOf('unassigned', [id])],
    ['held', team.held, addressOf('held', [id])],
    ['due', team.dueToday, addressOf('dueToday', [id])],
    ['late', team.late, addressOf('late', [id])],
  ] as const;
  return (
    <section className={classes.team} data-team={id}>
      <h2>{local(name)}</h2>
      <dl className={classes.numbers}>
        {numbers.map(([figure, count, to]) => (
          <div key={figure} data-figure={figure} data-some={count > 0 || undefined}>
            <dt>{t(`today/${figure}`)}</dt>
            <dd>
              <Link to={to}>{count}</Link>
            </dd>
          </div>
        ))}
      </dl>
      {team.ranked > 0 && (
        <p className={classes.ranked}>
          <Link to={`/desk/ranking/${id}`}>{t('today/ranked', { count: team.ranked })}</Link>
        </p>
      )}
      <dl className={classes.week}>
        <div>
          <dt>{t('today/inTime')}</dt>
          <dd>
            {promised === 0 ? (
              t('today/none')
            ) : (
              <>
                <b>{Math.round((100 * inTime) / promised)} %</b> {t('today/ofPromised', { inTime, promised })}
              </>
            )}
          </dd>
        </div>
        <div>
          <dt>{t('today/rating')}</dt>
          <dd>
            {rating === null ? (
              t('today/none')
            ) : (
              <>
                <b>{rating.toFixed(1)}</b> {t('today/byRatings', { count: ratings })}
              </>
            )}
          </dd>
        </div>
      </dl>
      <figure className={classes.days}>
        <ol aria-label={t('today/days')}>
          {days.map(({ at, arrived, resolved }) => {
            const words = t('today/day', { day: times.day(at), arrived, resolved });
            return (
              <li key={at} title={words} aria-label={words}>
                <i style={{ height: `${(100 * arrived) / most}%` }} />
                <i data-resolved style={{ height: `${(100 * resolved) / most}%` }} />
              </li>
            );
          })}
        </ol>
        <figcaption>
          <i /> {t('today/arrived')} <i data-resolved /> {t('today/resolved')} · {times.day(days[0]!.at)} –{' '}
          {times.day(days.at(-1)!.at)}
        </figcaption>
      </figure>
    </section>
  );
}
