import { VisuallyHidden } from '@mantine/core';
import { memo, useMemo, useState, type PointerEvent } from 'react';
import type { Axis } from '../../../core/axis';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';
import classes from './Dayline.module.css';
import { AxisGround } from './Fuse';
import { clusterDues, type Due } from './marks';
import { DayMarks } from './DayMarks';

export type Stretch = { from: number; to: number };
type Props = {
  axis: Axis;
  now: number;
  dues: Due[];
  chosen: Stretch | null;
  onChoose(stretch: Stretch | null): void;
};

const HOUR = 3_600_000;
const EVERY_HOURS = 2;
/** The least room that an hour's label takes, as a share of the axis. */
const LABEL_WIDTH = 0.08;
/** Shorter drags are clicks, which end the narrowing. */
const DRAG_LEAST = 0.01;
const percent = (x: number): string => `${x * 100}%`;

/** Hours to write: even ones, and none that would touch the one before. */
function hoursOf(axis: Axis, hourOf: (at: number) => number): number[] {
  const kept: number[] = [];
  for (const at of axis.ticks(1)) {
    const last = kept.at(-1);
    const isFirstOfPiece = axis.pieces.some(
      (piece) => !piece.isFolded && at - piece.from < HOUR && at >= piece.from,
    );
    if (!isFirstOfPiece && hourOf(at) % EVERY_HOURS !== 0) continue;
    if (last === undefined || axis.position(at) - axis.position(last) > LABEL_WIDTH) kept.push(at);
  }
  return kept;
}

/** The strip of time along which work falls due, on the scale of the fuses below it. Dragging, or Shift and arrows, narrows the list. */
export const Dayline = memo(function Dayline({ axis, now, dues, chosen, onChoose }: Props) {
  const { t } = useWords();
  const times = useTimes();
  const [dragFrom, setDragFrom] = useState<number | null>(null);
  const [dragTo, setDragTo] = useState<number | null>(null);
  const placeOf = ({ currentTarget, clientX }: PointerEvent<HTMLElement>): number => {
    const { left, width } = currentTarget.getBoundingClientRect();
    return Math.min(1, Math.max(0, (clientX - left) / width));
  };
  const dragged =
    dragFrom === null || dragTo === null
      ? null
      : { from: Math.min(dragFrom, dragTo), to: Math.max(dragFrom, dragTo) };
  function endDrag(): void {
    if (dragged && dragged.to - dragged.from > DRAG_LEAST)
      onChoose({ from: axis.instantAt(dragged.from), to: axis.instantAt(dragged.to) });
    else onChoose(null);
    setDragFrom(null);
    setDragTo(null);
  }
  const shown = dragged ?? (chosen && { from: axis.position(chosen.from), to: axis.position(chosen.to) });
  const past = dues.filter(({ at }) => at < now).length;
  const toCome = dues.filter(({ at }) => at >= now && at <= axis.to).length;
  const marks = useMemo(() => clusterDues(dues, axis), [dues, axis]);
  const open = axis.pieces.filter(({ isFolded }) => !isFolded);
  const hours = hoursOf(axis, (at) => Number(times.hour(at).slice(0, 2)));
  return (
    <div
      className={classes.dayline}
      role="group"
      aria-label={t('desk/dayline', { count: toCome, when: times.when(axis.to, now), past })}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDragFrom(placeOf(event));
      }}
      onPointerMove={(event) => dragFrom !== null && setDragTo(placeOf(event))}
      onPointerUp={endDrag}
    >
      <VisuallyHidden>
        {t('desk/openHours', {
          hours: open.map(({ from, to }) => `${times.when(from, now)} – ${times.when(to, now)}`).join(', '),
        })}
      </VisuallyHidden>
      <span className={classes.past} style={{ width: percent(axis.position(now)) }} />
      {hours.map((at, i) => {
        const isNewDay = i > 0 && times.weekday(at) !== times.weekday(hours[i - 1]!);
        return (
          <span
            key={at}
            className={classes.hour}
            data-day={isNewDay || undefined}
            style={{ left: percent(axis.position(at)) }}
          >
            {isNewDay ? times.weekday(at) : times.hour(at)}
          </span>
        );
      })}
      <AxisGround axis={axis} now={now} />
      <span className={classes.badge} style={{ left: percent(axis.position(now)) }}>
        {times.hour(now)}
      </span>
      <DayMarks {...{ marks, now, chosen, onChoose }} />
      {shown && (
        <span
          className={classes.chosen}
          style={{ left: percent(shown.from), width: percent(shown.to - shown.from) }}
        />
      )}
    </div>
  );
});
