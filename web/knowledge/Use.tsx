import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { AnswerOf } from '../../contract/endpoint';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import classes from './Knowledge.module.css';
import { CountsTable } from './CountsTable';
import { Period } from './Period';

type Day = AnswerOf<typeof api.knowledge.use>['days'][number];
const COUNTS = ['opened', 'helped', 'notHelped', 'deflected', 'shared', 'doneWith'] as const;
const isBusy = (day: Day): boolean => COUNTS.some((count) => day[count] > 0);

/** How often it was opened each day, one bar a day, and how many it helped. */
function DayBars({ days }: { days: Day[] }) {
  const { t } = useWords();
  const times = useTimes();
  const most = Math.max(1, ...days.map(({ opened, helped }) => Math.max(opened, helped)));
  const total = days.reduce((sum, { opened }) => sum + opened, 0);
  return (
    <div className={classes.days} role="img" aria-label={t('knowledge/openedBars', { count: total })}>
      {days.map(({ from, opened, helped }) => (
        <span
          key={from}
          title={`${times.day(from)}: ${opened} ${t('knowledge/counts/opened')}, ${helped} ${t('knowledge/counts/helped')}`}
        >
          {opened > 0 && <i style={{ height: `${(100 * opened) / most}%` }} />}
          <b style={{ height: `${(100 * helped) / most}%` }} />
        </span>
      ))}
    </div>
  );
}

/** How an article is used day by day, and what people said of it at its end. */
export function Use({ id }: { id: string }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const [days, setDays] = useState(28);
  const { data, error } = useQuery({
    queryKey: ['knowledge', 'article', id, 'use', days],
    queryFn: () => call(api.knowledge.use, { params: { id }, query: { days } }),
  });
  const busy = data?.days.filter(isBusy).reverse() ?? [];
  return (
    <section className={classes.section}>
      <h2>{t('knowledge/use')}</h2>
      <Period days={days} onChange={setDays} />
      <ProblemNote error={error} />
      {data && busy.length === 0 && <p>{t('knowledge/notUsed')}</p>}
      {data && busy.length > 0 && (
        <>
          <DayBars days={data.days} />
          <details>
            <summary>{t('knowledge/byDay')}</summary>
            <CountsTable
              first={t('knowledge/day')}
              counts={COUNTS}
              rows={busy.map((day) => ({ ...day, key: day.from, name: times.day(day.from) }))}
            />
          </details>
        </>
      )}
      {data && data.words.length > 0 && (
        <>
          <h3>{t('knowledge/wordsSaid')}</h3>
          <ul className={classes.said}>
            {data.words.map(({ at, helped, words }) => (
              <li key={`${at} ${words}`}>
                <small>
                  {times.when(at, now)} ·{' '}
                  {t(helped ? 'knowledge/counts/helped' : 'knowledge/counts/notHelped')}
                </small>
                <bdi>{words}</bdi>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
