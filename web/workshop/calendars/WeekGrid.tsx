import { TextInput, VisuallyHidden } from '@mantine/core';
import { useId, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import {
  DAY_MINUTES,
  paintWeek,
  toSpans,
  WEEKDAYS,
  type CalendarSpec,
  type Window,
} from '../../../core/calendar';
import { useWords } from '../../messages/useWords';
import { LOCALES } from '../../../core/forms';
import { fromHoursText, toHoursText } from './hoursText';
import classes from './WeekGrid.module.css';
import { dateFormat } from '../../ui/dateFormat';

type Weekly = CalendarSpec['weekly'];
type Props = {
  weekly: Weekly;
  isLocked: boolean;
  problems: Record<string, string>;
  onChange(weekly: Weekly): void;
};

/** Half hours are painted; exact minutes are written. */
const CELL = 30;
const CELLS = DAY_MINUTES / CELL;
const HOURS = [0, 4, 8, 12, 16, 20, 24];
/** A Monday, to name the days of the week by. */
const MONDAY = Date.UTC(2024, 0, 1);

type Cell = { day: number; cell: number };
type Brush = { from: Cell; to: Cell };
const minuteOf = ({ day, cell }: Cell): number => day * DAY_MINUTES + cell * CELL;
const share = (minutes: number): string => `${(minutes / DAY_MINUTES) * 100}%`;
const timeOf = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

/** The cells of a brush on one day, in order; it covers the same hours of every day between its ends. */
function brushOn({ from, to }: Brush, day: number): { from: number; to: number } | null {
  const [first, last] = [Math.min(from.day, to.day), Math.max(from.day, to.day)];
  if (day < first || day > last) return null;
  const [start, end] = [Math.min(from.cell, to.cell), Math.max(from.cell, to.cell) + 1];
  return { from: start * CELL, to: end * CELL };
}

function useDayNames(): { short(day: number): string; long(day: number): string } {
  const { language } = useWords();
  const name = (day: number, weekday: 'short' | 'long'): string =>
    dateFormat(LOCALES[language], { weekday, timeZone: 'UTC' }).format(MONDAY + day * 86_400_000);
  return { short: (day) => name(day, 'short'), long: (day) => name(day, 'long') };
}

/** The exact hours of a day, written; kept as typed until they can be read. */
function Exact({
  label,
  windows,
  isLocked,
  error,
  onChange,
}: {
  label: string;
  windows: Window[];
  isLocked: boolean;
  error: string | undefined;
  onChange(windows: Window[]): void;
}) {
  const { t } = useWords();
  const [typed, setTyped] = useState<string | null>(null);
  const isUnread = typed !== null && fromHoursText(typed) === null;
  return (
    <TextInput
      size="xs"
      aria-label={label}
      placeholder={t('workshop/calendar/closed')}
      readOnly={isLocked}
      value={typed ?? toHoursText(windows)}
      error={isUnread ? t('workshop/fields/malformedTime') : error}
      onChange={({ target }) => {
        setTyped(target.value);
        const read = fromHoursText(target.value);
        if (read) onChange(read);
      }}
      onBlur={() => !isUnread && setTyped(null)}
    />
  );
}

/** A week on its hours: dragging paints working time, over working time it wipes; arrows and Space do the same. */
export function WeekGrid({ weekly, isLocked, problems, onChange }: Props) {
  const { t } = useWords();
  const names = useDayNames();
  const id = useId();
  const [brush, setBrush] = useState<Brush | null>(null);
  const [cursor, setCursor] = useState<Cell | null>(null);
  const [anchor, setAnchor] = useState<Cell | null>(null);
  const tracks = useRef<(HTMLDivElement | null)[]>([]);
  const spans = toSpans(weekly);
  const works = (cell: Cell): boolean =>
    spans.some(({ from, to }) => minuteOf(cell) >= from && minuteOf(cell) < to);

  /** The state of the cell that it began on is turned over, on all that it covers. */
  function paint({ from, to }: Brush): void {
    const isWorking = !works(from);
    const painted = WEEKDAYS.reduce((week, _, day) => {
      const covered = brushOn({ from, to }, day);
      if (!covered) return week;
      const start = day * DAY_MINUTES;
      return paintWeek(week, { from: start + covered.from, to: start + covered.to }, isWorking);
    }, weekly);
    onChange(painted);
  }

  function cellAt({ clientX, clientY }: PointerEvent): Cell | null {
    const boxes = tracks.current.map((track) => track?.getBoundingClientRect());
    const [first, last] = [boxes[0], boxes.at(-1)];
    if (!first || !last) return null;
    const found = boxes.findIndex((box) => box && clientY < box.bottom);
    const day = clientY < first.top ? 0 : found === -1 ? 6 : found;
    const cell = Math.floor(((clientX - first.left) / first.width) * CELLS);
    return { day, cell: Math.min(CELLS - 1, Math.max(0, cell)) };
  }

  function onKeyDown(event: KeyboardEvent): void {
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
    };
    const at = cursor ?? { day: 0, cell: 16 };
    const step = steps[event.key];
    if (step) {
      const next = {
        day: Math.min(6, Math.max(0, at.day + step[0])),
        cell: Math.min(CELLS - 1, Math.max(0, at.cell + step[1])),
      };
      const from = event.shiftKey ? (anchor ?? at) : next;
      setAnchor(event.shiftKey ? from : null);
      setCursor(next);
    } else if (event.key === ' ' || event.key === 'Enter') {
      paint({ from: anchor ?? at, to: at });
      setAnchor(null);
    } else if (event.key === 'Escape') setAnchor(null);
    else return;
    event.preventDefault();
  }

  const shown = brush ?? (anchor && cursor ? { from: anchor, to: cursor } : null);
  const spoken = cursor
    ? t('workshop/calendar/cell', {
        day: names.long(cursor.day),
        from: timeOf(cursor.cell * CELL),
        to: timeOf((cursor.cell + 1) * CELL),
        state: t(`workshop/calendar/${works(cursor) ? 'working' : 'free'}`),
      })
    : '';
  return (
    <>
      <div className={classes.grid}>
        <span />
        <div className={classes.scale} aria-hidden>
          {HOURS.map((hour) => (
            <span key={hour} style={{ left: share(hour * 60) }}>
              {timeOf(hour * 60)}
            </span>
          ))}
        </div>
        <span />
        <div
          className={classes.rows}
          role="application"
          aria-label={t('workshop/calendar/week')}
          aria-describedby={`${id}-keys`}
          tabIndex={isLocked ? -1 : 0}
          onKeyDown={isLocked ? undefined : onKeyDown}
        >
          {WEEKDAYS.map((day, i) => (
            <Day
              key={day}
              {...{ day, i, spans, isLocked, weekly, names }}
              brushed={shown && brushOn(shown, i)}
              cursor={cursor?.day === i ? cursor.cell : null}
              error={problems[`weekly.${day}`]}
              onTrack={(track) => (tracks.current[i] = track)}
              onStart={(event) => {
                const cell = cellAt(event);
                if (!cell) return;
                event.currentTarget.setPointerCapture(event.pointerId);
                setBrush({ from: cell, to: cell });
                setCursor(cell);
              }}
              onMove={(event) => {
                const cell = cellAt(event);
                if (brush && cell) setBrush({ from: brush.from, to: cell });
              }}
              onEnd={(event) => {
                if (brush) paint({ from: brush.from, to: cellAt(event) ?? brush.to });
                setBrush(null);
              }}
              onExact={(windows) => onChange({ ...weekly, [day]: windows })}
            />
          ))}
        </div>
      </div>
      <VisuallyHidden role="status">{spoken}</VisuallyHidden>
      {!isLocked && (
        <p className={classes.keys} id={`${id}-keys`}>
          {t('workshop/calendar/weekLead')} {t('workshop/calendar/weekKeys')}
        </p>
      )}
    </>
  );
}

type DayProps = {
  day: (typeof WEEKDAYS)[number];
  i: number;
  spans: { from: number; to: number }[];
  weekly: Weekly;
  isLocked: boolean;
  names: ReturnType<typeof useDayNames>;
  brushed: { from: number; to: number } | null;
  cursor: number | null;
  error: string | undefined;
  onTrack(track: HTMLDivElement | null): void;
  onStart(event: PointerEvent<HTMLDivElement>): void;
  onMove(event: PointerEvent<HTMLDivElement>): void;
  onEnd(event: PointerEvent<HTMLDivElement>): void;
  onExact(windows: Window[]): void;
};

function Day({ day, i, spans, weekly, isLocked, names, brushed, cursor, error, ...on }: DayProps) {
  const { t } = useWords();
  const start = i * DAY_MINUTES;
  const own = spans.filter(({ from, to }) => to > start && from < start + DAY_MINUTES);
  return (
    <>
      <span className={classes.day}>{names.short(i)}</span>
      <div
        ref={on.onTrack}
        className={classes.track}
        data-day={day}
        data-locked={isLocked || undefined}
        {...(!isLocked && { onPointerDown: on.onStart, onPointerMove: on.onMove, onPointerUp: on.onEnd })}
      >
        {own.map(({ from, to }) => {
          const [a, b] = [Math.max(from, start) - start, Math.min(to, start + DAY_MINUTES) - start];
          return <span key={from} className={classes.span} style={{ left: share(a), width: share(b - a) }} />;
        })}
        {brushed && (
          <span
            className={classes.brush}
            style={{ left: share(brushed.from), width: share(brushed.to - brushed.from) }}
          />
        )}
        {cursor !== null && (
          <span className={classes.cursor} style={{ left: share(cursor * CELL), width: share(CELL) }} />
        )}
      </div>
      <Exact
        label={t('workshop/calendar/exact', { day: names.long(i) })}
        windows={weekly[day] ?? []}
        {...{ isLocked, error }}
        onChange={on.onExact}
      />
    </>
  );
}
