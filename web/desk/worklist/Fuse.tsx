import type { Axis } from '../../../core/axis';
import { useWords } from '../../messages/useWords';
import type { LiveClock } from '../../ui/clocks';
import classes from './Fuse.module.css';
import { shapeFuse } from './fuseShape';
import type { RowWords } from './useRowWords';

const share = (x: number): string => `${(x * 100).toFixed(3)}%`;
const across = ({ from, to }: { from: number; to: number }) => ({
  left: share(from),
  width: share(to - from),
});

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
  words: RowWords;
  isFocusable?: boolean;
  onWhy?: (() => void) | undefined;
};

/**
 * A clock drawn on the shared axis: burnt, held, left, and the due tick, with the time left in words, which open how
 * it was computed.
 */
export function Fuse({ live, axis, now, words: say, isFocusable = false, onWhy }: FuseProps) {
  const { t } = useWords();
  if (!live)
    return (
      <div className={classes.track}>
        <AxisGround axis={axis} now={now} />
      </div>
    );
  const { burnt, held, left, over, tick, words } = shapeFuse(live, axis, now);
  const [spoken, leftWords] = [say.reading(live), say.left(live)];
  const placed = {
    className: classes.words,
    'data-inside': words.isInside || undefined,
    style: { left: share(words.at) },
  };
  return (
    <div className={classes.track} title={spoken}>
      <AxisGround axis={axis} now={now} />
      <div
        className={classes.bar}
        data-tone={live.tone}
        {...(!onWhy && { role: 'img', 'aria-label': spoken })}
      >
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
