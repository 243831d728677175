import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, type ReactNode, type RefObject } from 'react';
import classes from './Worklist.module.css';

export type Item<R> = { kind: 'row'; row: R; index: number } | { kind: 'group'; name: string };

type Props<R> = {
  rows: R[];
  /** The group of a row, where the list is grouped. */
  groupOf: ((row: R) => string) | null;
  height: number;
  scroller: RefObject<HTMLElement | null>;
  /** What stands above the rows inside the scroller, in pixels. */
  headHeight: number;
  /** The row that must be in sight. */
  inSight: number | null;
  label: string;
  isGrid: boolean;
  onEnd(): void;
  children(row: R, place: { top: number; height: number; index: number }): ReactNode;
};

const GROUP_HEIGHT = 30;
const OVERSCAN = 8;
/** The next page is fetched when so few rows are left below. */
const EARLY = 30;

function toItems<R>(rows: R[], groupOf: Props<R>['groupOf']): Item<R>[] {
  if (!groupOf) return rows.map((row, index) => ({ kind: 'row', row, index }));
  let last: string | null = null;
  return rows.flatMap((row, index): Item<R>[] => {
    const item: Item<R> = { kind: 'row', row, index };
    const name = groupOf(row);
    if (name === last) return [item];
    last = name;
    return [{ kind: 'group', name }, item];
  });
}

/** Rows of any number: only those in sight are drawn. */
export function Rows<R>({
  rows,
  groupOf,
  height,
  scroller,
  headHeight,
  inSight,
  label,
  isGrid,
  onEnd,
  children,
}: Props<R>) {
  const items = useMemo(() => toItems(rows, groupOf), [rows, groupOf]);

  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (items[i]!.kind === 'group' ? GROUP_HEIGHT : height),
    overscan: OVERSCAN,
    scrollMargin: headHeight,
    scrollPaddingStart: headHeight,
    scrollPaddingEnd: 40,
  });
  // Without groups all are as high as each other, and what was measured holds for rows that come.
  const measured = groupOf ? items : null;
  useEffect(() => virtual.measure(), [height, virtual, measured]);
  const shown = virtual.getVirtualItems();
  const isNearEnd = (shown.at(-1)?.index ?? -1) >= items.length - EARLY;
  useEffect(() => {
    if (isNearEnd) onEnd();
  }, [isNearEnd, onEnd, items.length]);
  const at = inSight === null ? -1 : items.findIndex((item) => item.kind === 'row' && item.index === inSight);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);
  return (
    <div
      className={classes.rows}
      role={isGrid ? 'rowgroup' : undefined}
      aria-label={label}
      style={{ height: virtual.getTotalSize() }}
    >
      {shown.map(({ index, start, size }) => {
        const item = items[index]!;
        const top = start - headHeight;
        if (item.kind === 'row') return children(item.row, { top, height: size, index: item.index });
        return (
          <div
            key={`group ${item.name}`}
            role={isGrid ? 'row' : undefined}
            className={classes.groupName}
            style={{ transform: `translateY(${top}px)`, height: size }}
          >
            <span role={isGrid ? 'gridcell' : undefined}>{item.name}</span>
          </div>
        );
      })}
    </div>
  );
}
