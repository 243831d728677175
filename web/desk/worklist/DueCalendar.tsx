import { Button } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { Temporal } from 'temporal-polyfill';
import type { Condition } from '../../../core/conditions';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { LOCALES } from '../../../core/forms';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import type { SeenList } from './useList';
import { useListRows } from './useListRows';
import { useLiveRows } from './useLiveRows';
import { rowIdOf } from './useRowWords';
import { narrow } from './where';
import classes from './Board.module.css';
import { dateFormat } from '../../ui/dateFormat';

const WEEKS = 5;
const SHOWN = 4;

/** A list by the day on which its work falls due, five weeks at a time. */
export function DueCalendar({ list, search }: { list: SeenList; search: string }) {
  const { t, language } = useWords();
  const times = useTimes();
  const me = useMe();
  const [week, setWeek] = useState(0);
  const [opened, setOpened] = useState<string | null>(null);
  const present = useNow(60_000);
  const today = Temporal.Instant.fromEpochMilliseconds(present).toZonedDateTimeISO(me.timeZone).toPlainDate();
  const first = today.subtract({ days: today.dayOfWeek - 1 }).add({ weeks: week });
  const days = Array.from({ length: WEEKS * 7 }, (_, i) => first.add({ days: i }));
  const startOf = (day: Temporal.PlainDate): number => day.toZonedDateTime(me.timeZone).epochMilliseconds;
  const within: Condition = {
    all: [
      { field: 'dueAt', op: 'gte', value: startOf(first) },
      { field: 'dueAt', op: 'lt', value: startOf(first.add({ weeks: WEEKS })) },
    ],
  };
  const { query, rows } = useListRows(
    { ...list, order: 'tightest', groupBy: null },
    { where: narrow(list.where, within) },
  );
  const { toLive, calendars, now } = useLiveRows(rows);
  const own = calendars?.[me.calendarId];
  const dated = rows.map((row) => {
    const live = toLive(row);
    const due = row.step?.neededBy ?? live.live?.clock.dueAt ?? row.due?.at ?? null;
    const day =
      due === null
        ? null
        : Temporal.Instant.fromEpochMilliseconds(due)
            .toZonedDateTimeISO(me.timeZone)
            .toPlainDate()
            .toString();
    return { ...live, due, day };
  });
  const monthOf = (day: Temporal.PlainDate): string =>
    dateFormat(LOCALES[language], { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
      Date.UTC(day.year, day.month - 1, day.day),
    );
  return (
    <>
      <div className={classes.swipe}>
        <Button
          size="compact-sm"
          variant="default"
          aria-label={t('lists/weekBefore')}
          onClick={() => setWeek(week - 1)}
        >
          ←
        </Button>
        <strong>{monthOf(first)}</strong>
        <Button
          size="compact-sm"
          variant="default"
          aria-label={t('lists/weekAfter')}
          onClick={() => setWeek(week + 1)}
        >
          →
        </Button>
        {week !== 0 && (
          <Button size="compact-sm" variant="subtle" onClick={() => setWeek(0)}>
            {t('lists/todayShort')}
          </Button>
        )}
        {query.hasNextPage && (
          <Button size="compact-sm" variant="default" onClick={() => void query.fetchNextPage()}>
            {t('desk/more')}
          </Button>
        )}
      </div>
      <ProblemNote error={query.error} />
      <div className={classes.month} role="grid" aria-label={t('lists/views/calendar')}>
        <div role="row" className={classes.week}>
          {days.slice(0, 7).map((day) => (
            <div key={day.dayOfWeek} data-head role="columnheader">
              {times.weekday(startOf(day) + 43_200_000)}
            </div>
          ))}
        </div>
        {Array.from({ length: WEEKS }, (_, w) => (
          <div key={w} role="row" className={classes.week}>
            {days.slice(w * 7, w * 7 + 7).map((day) => {
              const name = day.toString();
              const due = dated.filter((row) => row.day === name);
              const isOpen = opened === name;
              const from = startOf(day);
              const isClosed = own ? own.workingBetween(from, startOf(day.add({ days: 1 }))) === 0 : false;
              return (
                <div
                  key={name}
                  role="gridcell"
                  data-day={name}
                  data-today={day.equals(today) || undefined}
                  data-other={from < now - 86_400_000 || undefined}
                  data-closed={isClosed || undefined}
                >
                  {day.day}
                  {(isOpen ? due : due.slice(0, SHOWN)).map(({ ticket, live, due: at }) => (
                    <Link
                      key={rowIdOf(ticket)}
                      to={`/desk/${list.id}/${ticket.number}${search}`}
                      data-number={ticket.number}
                      data-tone={live?.tone}
                      title={ticket.title}
                    >
                      {at !== null && times.hour(at)} <bdi>{ticket.title}</bdi>
                    </Link>
                  ))}
                  {due.length > SHOWN && (
                    <Button
                      size="compact-sm"
                      variant="subtle"
                      onClick={() => setOpened(isOpen ? null : name)}
                    >
                      {isOpen ? t('lists/fewer') : t('lists/andMore', { count: due.length - SHOWN })}
                    </Button>
                  )}
                </div>
              );
            })}
          </div>
        ))}
      </div>
    </>
  );
}
