import { Button, Group } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useDebouncedValue } from '@mantine/hooks';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { WorkCalendar, WorkCard } from '../../contract/works';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { layOut, type Bar, type CalendarRow } from './layOut';
import { Clashes, useClashWords } from './Reckoned';
import { useReckoned, useRenewWorks } from './useWorks';
import classes from './Works.module.css';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const QUARTER = HOUR / 4;
/** A bar and the space to the next lane (px). */
const LANE = 32;

/** Over a longer stretch the days stand without their weekdays (ms). */
const WEEKDAYS_UNTIL = 10 * DAY;
/** A bar with its name takes this part of the axis. */
const WITH_NAME = 0.24;

export type Stretch = { from: number; to: number };
type Moving = { work: WorkCard; by: number };

/** What a change would get in the way of where it is being moved to, reckoned as it moves. */
function MovedTo({ moving, onDone }: { moving: Moving; onDone(): void }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const renew = useRenewWorks();
  const { work, by } = moving;
  const { number, version, thingIds } = work;
  const [fromAt, toAt] = [work.fromAt! + by, work.toAt! + by];
  const [settled] = useDebouncedValue(by, 120);
  const { data } = useReckoned({
    ...{ number, serviceId: 'any', thingIds, fromAt: work.fromAt! + settled, toAt: work.toAt! + settled },
  });
  const put = useMutation({
    mutationFn: () =>
      call(api.works.move, { params: { number }, body: { version, fromAt, toAt }, key: nanoid() }),
    onSuccess: () => {
      notifications.show({ message: t('works/moved', { number, when: times.when(fromAt, now) }) });
      onDone();
    },
    onSettled: renew,
  });
  return (
    <div className={classes.move} role="status">
      <b>
        {number} {work.title}
      </b>{' '}
      {times.when(fromAt, now)} – {times.when(toAt, now)}
      {work.stage !== 'draft' && <p className={classes.quiet}>{t('works/askedAgain')}</p>}
      {data && <Clashes clashes={data.clashes} own={number} />}
      <ProblemNote error={put.error} />
      <Group gap="xs" mt={4}>
        <Button size="compact-sm" loading={put.isPending} onClick={() => put.mutate()}>
          {t('works/saveChanges')}
        </Button>
        <Button size="compact-sm" variant="default" onClick={onDone}>
          {t('works/cancel')}
        </Button>
      </Group>
    </div>
  );
}

type RowProps = {
  row: CalendarRow;
  stretch: Stretch;
  moving: Moving | null;
  clashing: Map<number, string>;
  onMove(moving: Moving | null): void;
};

/** A bar: opened by a click or Enter, moved by dragging or the arrow keys. */
function OneBar({ bar, stretch, moving, clashing, onMove }: Omit<RowProps, 'row'> & { bar: Bar }) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const navigate = useNavigate();
  const drag = useRef<{ x: number; width: number; by: number } | null>(null);
  const { work, noticeId } = bar;
  const isMoving = work !== null && moving?.work.number === work.number;
  const by = isMoving ? moving.by : 0;
  const length = stretch.to - stretch.from;
  const left = Math.max(0, (bar.from + by - stretch.from) / length);
  const right = Math.min(1, (bar.to + by - stretch.from) / length);
  if (right <= 0 || left >= 1) return null;
  const title = typeof bar.title === 'string' ? bar.title : local(bar.title);
  const clash = work ? clashing.get(work.number) : undefined;
  const when = `${times.when(bar.from + by, now)} – ${times.when(bar.to + by, now)}`;
  const words = [work && String(work.number), title, work && t(`works/stages/${work.stage}`), when, clash]
    .filter(Boolean)
    .join(', ');
  const move = (to: number): void => {
    if (work?.mayMove) onMove({ work, by: Math.round(to / QUARTER) * QUARTER });
  };
  const open = (): void =>
    void navigate(work ? `/estate/works/${work.number}` : `/estate/notices/${noticeId}`);
  return (
    <button
      type="button"
      className={classes.bar}
      style={{
        insetInlineStart: `${left * 100}%`,
        width: `${(right - left) * 100}%`,
        top: 5 + bar.lane * LANE,
      }}
      data-stage={work?.stage}
      data-notice={noticeId ?? undefined}
      data-clash={clash !== undefined || undefined}
      data-work={work?.number}
      aria-label={words}
      title={words}
      onKeyDown={(event) => {
        const step = event.shiftKey ? DAY : HOUR;
        if (event.key === 'ArrowRight' || event.key === 'ArrowLeft') {
          event.preventDefault();
          move(by + (event.key === 'ArrowRight' ? step : -step));
        } else if (event.key === 'Escape' && isMoving) onMove(null);
      }}
      onPointerDown={(event) => {
        const row = event.currentTarget.parentElement!;
        drag.current = { x: event.clientX, width: row.clientWidth, by };
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        const begun = drag.current;
        if (!begun || Math.abs(event.clientX - begun.x) < 4) return;
        move(begun.by + ((event.clientX - begun.x) / begun.width) * length);
      }}
      onPointerUp={(event) => {
        const begun = drag.current;
        drag.current = null;
        if (begun && Math.abs(event.clientX - begun.x) < 4 && !isMoving) open();
      }}
      onClick={(event) => {
        // By the keyboard: a click without a pointer.
        if (event.detail === 0 && !isMoving) open();
      }}
    >
      <span className={right - left < WITH_NAME ? classes.beside : undefined}>
        {work?.number} <bdi>{title}</bdi>
      </span>
    </button>
  );
}

function Row(props: RowProps & { frozen: Stretch[]; now: number }) {
  const { row, stretch, frozen, now } = props;
  const { t, local } = useWords();
  const length = stretch.to - stretch.from;
  const at = (instant: number): string => `${((instant - stretch.from) / length) * 100}%`;
  const name =
    row.name === null ? t('works/everythingElse') : typeof row.name === 'string' ? row.name : local(row.name);
  return (
    <>
      <div className={classes.name}>
        <bdi>{name}</bdi>
      </div>
      <div className={classes.row} style={{ height: 8 + row.lanes * LANE }}>
        {daysOf(stretch).map((day) => (
          <span key={day} className={classes.line} style={{ insetInlineStart: at(day) }} />
        ))}
        {frozen.map(({ from, to }, i) => (
          <span
            key={i}
            className={classes.frozen}
            style={{
              insetInlineStart: at(Math.max(from, stretch.from)),
              width: `${((Math.min(to, stretch.to) - Math.max(from, stretch.from)) / length) * 100}%`,
            }}
          />
        ))}
        {now > stretch.from && now < stretch.to && (
          <span className={classes.nowLine} style={{ insetInlineStart: at(now) }} />
        )}
        {row.bars.map((bar) => (
          <OneBar key={bar.key} bar={bar} {...props} />
        ))}
      </div>
    </>
  );
}

/** Where days or weeks begin: as many as can be told apart. */
function daysOf({ from, to }: Stretch): number[] {
  const step = to - from > 30 * DAY ? 7 * DAY : to - from > 10 * DAY ? 2 * DAY : DAY;
  return Array.from({ length: Math.ceil((to - from) / step) }, (_, i) => from + i * step);
}

/** The calendar of work: things or teams as rows, time as the axis, freezes hatched, clashes struck and said in words. */
export function Calendar({
  calendar,
  stretch,
  by,
}: {
  calendar: WorkCalendar;
  stretch: Stretch;
  by: 'things' | 'teams';
}) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const clashWords = useClashWords();
  const [moving, setMoving] = useState<Moving | null>(null);
  const rows = layOut(calendar, by, { until: stretch.to, least: (stretch.to - stretch.from) * WITH_NAME });
  const clashing = new Map(
    calendar.clashes
      .filter(({ kind }) => kind !== 'alone')
      .flatMap((clash) => clash.works.map(({ number }) => [number, clashWords(clash, number)] as const)),
  );
  const length = stretch.to - stretch.from;
  const frozenAt = (id: string): Stretch[] =>
    calendar.freezes
      .filter(({ thingIds }) => thingIds === null || (by === 'things' && thingIds.includes(id)))
      .map(({ fromAt, toAt }) => ({ from: fromAt, to: toAt }));
  return (
    <>
      {moving && <MovedTo moving={moving} onDone={() => setMoving(null)} />}
      <div className={classes.calendar} tabIndex={0} role="region" aria-label={t('works/calendar')}>
        <div className={classes.grid}>
          <div />
          <div className={classes.axis}>
            {daysOf(stretch).map((day) => (
              <span key={day} style={{ insetInlineStart: `${((day - stretch.from) / length) * 100}%` }}>
                {length > WEEKDAYS_UNTIL ? times.day(day) : `${times.weekday(day)} ${times.day(day)}`}
              </span>
            ))}
          </div>
          {rows.map((row) => (
            <Row
              key={row.id}
              {...{ row, stretch, moving, clashing, now, frozen: frozenAt(row.id) }}
              onMove={setMoving}
            />
          ))}
        </div>
      </div>
      {rows.length > 0 && <p className={classes.quiet}>{t('works/moveHelp')}</p>}
      {calendar.clashes.length > 0 && (
        <section>
          <h2>{t('works/clashesHere', { count: calendar.clashes.length })}</h2>
          <Clashes clashes={calendar.clashes} />
        </section>
      )}
    </>
  );
}
