import type { api } from '../../contract';
import type { BodyOf, QueryOf } from '../../contract/endpoint';
import type { WorkCalendar, WorkCard } from '../../contract/works';
import { noticeState } from '../../core/notices';
import { isAgent, mayLead, readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { readRefs } from '../estate/cards';
import type { SignedIn } from '../sessions/viewer';
import type { Viewing } from '../unitOfWork';
import type { FreezeRow } from './model';
import { findFree, listClashes, readFreezes, readGround } from './reckon';
import { readWorkCards } from './read';

/** More than so much is not shown at once (ms): a quarter of a year, and some days. */
const LONGEST = 100 * 86_400_000;
const ENDED = new Set(['declined', 'withdrawn']);

/** Whether someone may keep a stretch free of changes: who leads a team, or sets up. */
export const maySetFreezes = (viewer: SignedIn): boolean =>
  viewer.isAdministrator || viewer.teams.some(({ teamId }) => mayLead(viewer, teamId));

export const toFreezeView = ({ isEverything, thingIds, ...freeze }: FreezeRow) => ({
  ...freeze,
  thingIds: isEverything ? null : thingIds,
});

/** The calendar of work over a stretch, with freezes, notices and clashes. */
export async function readCalendar(
  { listo, viewer }: Viewing,
  { from, to }: QueryOf<typeof api.works.calendar>,
): Promise<WorkCalendar> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  if (to <= from || to - from > LONGEST)
    throw new ProblemError('fieldsNotValid', {
      fields: [{ field: 'to', code: to <= from ? 'endsBeforeBegins' : 'tooLarge' }],
    });
  const viewing = { listo, viewer };
  const ground = await readGround(listo);
  const [cards, freezes, notices, clashes] = await Promise.all([
    readWorkCards(viewing, 'w.fromAt < :to AND w.toAt > :from', { from, to }),
    readFreezes(listo, { from, to }),
    listo.db.tables.notices.find({ calledBackAt: null }, { order: [['fromAt', 'DESC']], limit: 300 }),
    listClashes(viewing, ground, { from, to }),
  ]);
  const now = listo.clock.now();
  const works = cards.filter(({ stage }) => !ENDED.has(stage)).map(({ work: _, ...card }): WorkCard => card);
  const shown = notices
    // What is announced of a change stands there as the change.
    .filter((notice) => notice.ofWork === null && notice.fromAt < to)
    .filter(
      (notice) =>
        (notice.endedAt ?? (noticeState(notice, now) === 'ended' ? notice.untilAt! : Infinity)) > from,
    )
    .map(({ id, title, kind, fromAt, untilAt, endedAt, thingIds }) => ({
      id,
      title,
      kind,
      fromAt,
      thingIds,
      untilAt: endedAt ?? untilAt,
    }));
  const ids = [...works, ...shown].flatMap(({ thingIds }) => thingIds);
  const frozen = freezes.flatMap(({ thingIds }) => thingIds);
  return {
    ...{ works, freezes: freezes.map(toFreezeView), notices: shown, clashes },
    things: await readRefs(viewing, ground.network, [...new Set([...ids, ...frozen])]),
    maySetFreezes: maySetFreezes(viewer),
  };
}

/** What is left of a stretch without others. */
function without(stretch: { from: number; to: number }, others: { from: number; to: number }[]) {
  const left: { from: number; to: number }[] = [];
  let at = stretch.from;
  for (const { from, to } of [...others].sort((a, b) => a.from - b.from)) {
    if (from > at) left.push({ from: at, to: Math.min(from, stretch.to) });
    at = Math.max(at, to);
    if (at >= stretch.to) break;
  }
  if (at < stretch.to) left.push({ from: at, to: stretch.to });
  return left;
}

/** The next free time for a change: at any hour, or while nobody works by a calendar. */
export async function findNextFree(
  { listo, viewer }: Viewing,
  { minutes, notBefore, notAfter, outsideCalendarId, ...asked }: BodyOf<typeof api.works.slot>,
): Promise<{ fromAt: number | null }> {
  if (!isAgent(viewer)) throw new ProblemError('forbidden');
  const stretch = { from: notBefore, to: notAfter };
  if (notAfter <= notBefore || notAfter - notBefore > 4 * LONGEST)
    throw new ProblemError('fieldsNotValid', {
      fields: [{ field: 'notAfter', code: notAfter <= notBefore ? 'endsBeforeBegins' : 'tooLarge' }],
    });
  let windows = [stretch];
  if (outsideCalendarId !== null) {
    const calendar = (await listo.calendars.getAll())[outsideCalendarId];
    if (!calendar)
      throw new ProblemError('fieldsNotValid', {
        fields: [{ field: 'outsideCalendarId', code: 'notAChoice' }],
      });
    windows = without(stretch, calendar.windowsBetween(notBefore, notAfter));
  }
  if (windows.length === 0) return { fromAt: null };
  const duration = minutes * 60_000;
  return { fromAt: await findFree({ listo, viewer }, asked, { duration, notBefore, notAfter, windows }) };
}
