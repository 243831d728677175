import { api } from '../../contract';
import { findSurges, largestAlike } from '../../core/surge';
import { mayLead, readsDesk } from '../../core/rights';
import { isNews } from '../../core/telling';
import { DOORS, type TicketState } from '../../core/tickets';
import { findLastResort } from '../catalogue/lastResort';
import { ProblemError } from '../http/problems';
import { OK, serve, type Routes } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { listSeenTeams } from '../teams/seen';

const HOUR = 3_600_000;
const WEEK = 168 * HOUR;
/** So many weeks say what is usual. */
const WEEKS = 8;
/** One quiet hour in a hundred may raise a false alarm, unless the lead chooses otherwise. */
const DEFAULT_RATE = 0.01;
const SHOWN = 200;
/** So many are compared with each other at most. */
const MOST_COMPARED = 300;

const nameOf = (teamId: string): string => `surge:${teamId}`;

async function readRate(listo: Listo, teamId: string): Promise<number> {
  const setting = await listo.db.tables.settings.findOne({ name: nameOf(teamId) });
  return typeof setting?.value === 'number' ? setting.value : DEFAULT_RATE;
}

/** Arrivals that say something of the hour they came in. */
const ARE_NEWS = `via IN (${DOORS.filter((via) => isNews({ via }))
  .map((via) => `'${via}'`)
  .join()})`;

type Counted = { serviceId: string; teamId: string; week: number; count: number };

/** Arrivals of the last hour and of the same hour in the weeks before, by service, in some teams. */
async function countArrivals(listo: Listo, teamIds: string[], now: number): Promise<Counted[]> {
  const hours = Array.from({ length: WEEKS + 1 }, (_, week) => {
    const to = now - week * WEEK;
    return `SELECT serviceId, teamId, ${week} AS week, COUNT(*) AS count FROM tickets
      WHERE createdAt > ${to - HOUR} AND createdAt <= ${to} AND teamId IN (:teamIds) AND ${ARE_NEWS} GROUP BY serviceId, teamId`;
  });
  return listo.db.select<Counted>(hours.join(' UNION ALL '), { teamIds });
}

type Arrived = { number: number; title: string; state: TicketState; underNumber: number | null };

/** Those of a service that came since an instant and say the same. */
async function readAlike(
  { db }: Listo,
  of: { serviceId: string; teamId: string; since: number },
): Promise<Arrived[]> {
  const rows = await db.select<Arrived>(
    `SELECT number, title, state, underNumber FROM tickets WHERE createdAt > :since AND serviceId = :serviceId AND teamId = :teamId
       AND ${ARE_NEWS} ORDER BY number LIMIT ${MOST_COMPARED}`,
    of,
  );
  return largestAlike(rows);
}

/** Whether it can still be tied to others. */
const isLoose = ({ state, underNumber }: Arrived): boolean =>
  underNumber === null && (state === 'received' || state === 'inWork');

async function readSurges(listo: Listo, viewer: SignedIn) {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const now = listo.clock.now();
  const teamIds = await listSeenTeams(listo, viewer);
  if (teamIds.length === 0) return { surges: [], alarmRate: DEFAULT_RATE };
  const counted = await countArrivals(listo, teamIds, now);
  // What fits no other service is alike in nothing else.
  const lastResort = await findLastResort(listo).catch(() => null);
  const surges = [];
  for (const teamId of teamIds) {
    const own = counted.filter((row) => row.teamId === teamId && row.serviceId !== lastResort);
    const services = [...new Set(own.map(({ serviceId }) => serviceId))];
    const countOf = (serviceId: string, week: number): number =>
      own.find((row) => row.serviceId === serviceId && row.week === week)?.count ?? 0;
    const arrivals = services.map((key) => ({
      key,
      count: countOf(key, 0),
      before: Array.from({ length: WEEKS }, (_, i) => countOf(key, i + 1)),
    }));
    const rate = await readRate(listo, teamId);
    for (const { key } of findSurges(arrivals, rate)) {
      const before = arrivals.find((each) => each.key === key)!.before;
      const alike = await readAlike(listo, { serviceId: key, teamId, since: now - HOUR });
      const [surge] = findSurges([{ key, count: alike.length, before }], rate / arrivals.length);
      if (!surge) continue;
      const { key: serviceId, ...figures } = surge;
      const service = await listo.db.tables.services.findOne({ id: serviceId });
      const numbers = alike
        .filter(isLoose)
        .slice(0, SHOWN)
        .map(({ number }) => number);
      surges.push({ ...figures, serviceId, service: service!.title, since: now - HOUR, numbers });
    }
  }
  return { surges, alarmRate: await readRate(listo, teamIds[0]!) };
}

export const surgeRoutes: Routes = (router, listo) => {
  serve(router, api.surge.list, ({ viewer }) => readSurges(listo, viewer));
  serve(router, api.surge.setRate, async ({ viewer, params, body }) => {
    if (!mayLead(viewer, params.id)) throw new ProblemError('forbidden');
    const { settings } = listo.db.tables;
    await settings.insertAll([{ name: nameOf(params.id), value: body.alarmRate }], undefined, {
      updates: ['value'],
    });
    return OK;
  });
};
