import type { WorkCalendar, WorkCard } from '../../contract/works';
import type { LocalText } from '../../core/forms';

/** A bar of the calendar: a change, or a notice that is none of a change. Instants in ms since 1970. */
export type Bar = {
  key: string;
  from: number;
  to: number;
  lane: number;
  work: WorkCard | null;
  title: string | LocalText;
  noticeId: string | null;
};
/** A row of the calendar with its bars in lanes, so that none lies on another. */
export type CalendarRow = { id: string; name: string | LocalText | null; bars: Bar[]; lanes: number };

type Placed = Omit<Bar, 'lane'> & { rowIds: string[] };

/** Puts bars into lanes: each into the first that is free from its beginning on. */
function intoLanes(bars: Omit<Bar, 'lane'>[], least: number): { bars: Bar[]; lanes: number } {
  const ends: number[] = [];
  const placed = [...bars]
    .sort((a, b) => a.from - b.from || a.key.localeCompare(b.key))
    .map((bar) => {
      const free = ends.findIndex((end) => end <= bar.from);
      const lane = free === -1 ? ends.length : free;
      // Its name stands beside it where it does not go into it.
      ends[lane] = Math.max(bar.to, bar.from + least);
      return { ...bar, lane };
    });
  return { bars: placed, lanes: Math.max(1, ends.length) };
}

/**
 * The rows of the calendar of work: a thing each, or a team each; what is done to no thing stands in a row of its own.
 * What has no end goes to the end of what is shown.
 * @param least how long a bar with its name is at least, in ms of the axis
 */
export function layOut(
  calendar: WorkCalendar,
  by: 'things' | 'teams',
  { until, least = 0 }: { until: number; least?: number },
): CalendarRow[] {
  const { works, notices, things } = calendar;
  const known = new Set(things.map(({ id }) => id));
  const rowsOf = (ids: string[]): string[] => {
    const seen = ids.filter((id) => known.has(id));
    return seen.length > 0 ? seen : [''];
  };
  const all: Placed[] = [
    ...works.map((work) => ({
      ...{
        key: `w${work.number}`,
        from: work.startedAt ?? work.fromAt!,
        to: work.endedAt ?? Math.max(work.toAt!, work.fromAt! + 1),
      },
      ...{
        work,
        title: work.title,
        noticeId: null,
        rowIds: by === 'things' ? rowsOf(work.thingIds) : [work.teamId],
      },
    })),
    ...(by === 'things' ? notices : []).map(({ id, title, fromAt, untilAt, thingIds }) => ({
      ...{
        key: `n${id}`,
        from: fromAt,
        to: untilAt ?? until,
        work: null,
        title,
        noticeId: id,
        rowIds: rowsOf(thingIds),
      },
    })),
  ];
  const names = new Map<string, string | LocalText | null>(
    by === 'things'
      ? [...things.map(({ id, name }) => [id, name] as const), ['', null]]
      : works.map(({ teamId, team }) => [teamId, team]),
  );
  return [...names].flatMap(([id, name]) => {
    const own = all.filter(({ rowIds }) => rowIds.includes(id)).map(({ rowIds: _, ...bar }) => bar);
    return own.length === 0 ? [] : [{ id, name, ...intoLanes(own, least) }];
  });
}
