import type { Axis } from '../../../core/axis';
import { useWords } from '../../messages/useWords';
import type { LiveClock } from '../../ui/clocks';
import { useTimes } from '../../ui/useTimes';
import classes from './Fuse.module.css';
import { shapeFuse } from './fuseShape';

const share = (x: number): string => `${(x * 100).toFixed(3)}%`;
const across = ({ from, to }: { from: number; to: number }) => ({
  left: share(from),
  width: share(to - from),
});

/** The time left of a clock in words; what shortens, what is past. */
export function useLeftWords(): (live: LiveClock | null, isShort?: boolean) => string {
  const { t } = useWords();
  const times = useTimes();
  return (live, isShort = false) => {
    if (!live) return t('desk/noClock');
    const { leftMinutes, tone, clock, hoursPerDay } = live;
    if (leftMinutes === null) return '';
    if (clock.state === 'paused') return t('desk/paused', { span: times.span(leftMinutes, hoursPerDay) });
    if (tone === 'past')
      return t(isShort ? 'time/pastShort' : 'time/past', {
        span: times.span(Math.max(0, -leftMinutes), hoursPerDay),
      });
    return times.span(leftMinutes, hoursPerDay);
  };
}

/** The closed stretches and the line of now, which every row of the axis shares. */
export function AxisGround({ axis, now }: { axis: Axis; now: number }) {
  return (
    <>
      {axis.pieces
        .filter(({ isFolded }) => isFolded)
        .map(({ from, x0, x1 }) => (
          <span key={from} className={classes.fold} style={across({ from: x0, to: x1 })} />
        ))}
      <span className={classes.now} style={{ left: share(axis.position(now)) }} />
    </>
  );
}

type FuseProps = {
  live: LiveClock | null;
  axis: Axis;
  now: number;
  isFocusable?: boolean;
  onWhy?: (() => void) | undefined;
};

/**
 * A clock drawn on the shared axis: burnt, held, left, and the due tick, with the time left in words, which open how
 * it was computed.
 */
export function Fuse({ live, axis, now, isFocusable = false, onWhy }: FuseProps) {
  const leftWords = useLeftWords()(live);
  const { t } = useWords();
  const times = useTimes();
  if (!live)
    return (
      <div className={classes.track}>
        <AxisGround axis={axis} now={now} />
      </div>
    );
  const { clock, tone } = live;
  const { burnt, held, left, over, tick, words } = shapeFuse(live, axis, now);
  const spoken =
    clock.dueAt === null
      ? `${clock.name}: ${leftWords}`
      : t(tone === 'past' ? 'desk/readingPast' : 'desk/reading', {
          clock: clock.name,
          when: times.when(clock.dueAt, now),
          span: times.span(Math.abs(live.leftMinutes ?? 0), live.hoursPerDay),
        });
  const placed = {
    className: classes.words,
    'data-inside': words.isInside || undefined,
    style: { left: share(words.at) },
  };
  return (
    <div className={classes.track} title={spoken}>
      <AxisGround axis={axis} now={now} />
      <div className={classes.bar} data-tone={tone} {...(!onWhy && { role: 'img', 'aria-label': spoken })}>
        {burnt.map((span) => (
          <span key={span.from} className={classes.burnt} style={across(span)} />
        ))}
        {held.map((span) => (
          <span key={span.from} className={classes.held} style={across(span)} />
        ))}
        {left && <span className={classes.left} style={across(left)} />}
        {over && <span className={classes.over} style={across(over)} />}
        {tick !== null && <span className={classes.tick} style={{ left: share(tick) }} />}
        {onWhy ? (
          <button
            type="button"
            {...placed}
            tabIndex={isFocusable ? 0 : -1}
            aria-label={t('desk/whyClock', { reading: spoken })}
            onClick={onWhy}
          >
            {leftWords}
          </button>
        ) : (
          <span {...placed}>{leftWords}</span>
        )}
      </div>
    </div>
  );
}
