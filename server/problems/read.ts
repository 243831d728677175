import { parsed } from '../database/json';
import type { Problem, ProblemCard, RecurringGroup } from '../../contract/problems';
import type { LocalText } from '../../core/forms';
import { recurring, type Incident, type OpenProblem } from '../../core/estate';
import { rateRatio } from '../../core/problems';
import { createRights, may, readsDesk } from '../../core/rights';
import { rankSimilar } from '../../core/similar';
import { OPEN_STATES, type TicketState } from '../../core/tickets';
import { readRefs } from '../estate/cards';
import { readNetwork } from '../estate/network';
import { ProblemError } from '../http/problems';
import { readPeople } from '../people/names';
import { requireTicket } from '../tickets/guard';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import type { ProblemIncidentRow, ProblemRow } from './model';

const WEEK = 7 * 86_400_000;
const WEEKS = 8;
/** So many incidents of a period are looked through for what keeps breaking. */
const MOST_INCIDENTS = 5_000;
/** So many that fit a ticket are offered. */
const OFFERED = 3;
/** Fits a ticket: half of the words or so, of the same service less. */
const LEAST_FIT = 0.3;

type Row = ProblemRow & {
  title: string;
  serviceId: string;
  place: string;
  teamId: string;
  team: LocalText | string;
  assigneeId: string | null;
  createdAt: number;
  incidents: number;
  openIncidents: number;
};

const OPEN = OPEN_STATES.map((state) => `'${state}'`).join();

/** Problems with what lists show of them; incidents that one does not see are counted nowhere. @param where SQL of `b` (problems) and `t` (tickets) */
async function readRows(
  { listo, viewer }: Viewing,
  where: string,
  values: Record<string, unknown> = {},
): Promise<(ProblemCard & { row: Row })[]> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const visible = visibleTo(viewer);
  const seen = visible.sql.replace(/\bt\./g, 'i.');
  const counted = (more: string): string =>
    `(SELECT COUNT(*) FROM problem_incidents n JOIN tickets i ON i.number = n.incidentNumber AND ${seen}
      WHERE n.problemNumber = t.number AND n.tie <> 'dropped' ${more})`;
  const rows = await listo.db.select<Row>(
    `SELECT b.*, t.title, t.serviceId, t.place, t.teamId, tm.name AS team, t.assigneeId, t.createdAt,
       ${counted('')} AS incidents, ${counted(`AND i.state IN (${OPEN})`)} AS openIncidents
     FROM problems b JOIN tickets t ON t.number = b.ticketNumber AND ${visible.sql} JOIN teams tm ON tm.id = t.teamId
     WHERE ${where} ORDER BY b.stage = 'solved', t.number DESC LIMIT 1000`,
    { ...visible.values, ...values },
  );
  const people = await readPeople(
    listo,
    rows.map(({ assigneeId }) => assigneeId),
  );
  return rows.map((row) => {
    const { ticketNumber: number, title, stage, teamId, team, assigneeId, createdAt, solvedAt, backAt } = row;
    const { incidents, openIncidents, workaround, articleId } = row;
    return {
      ...{
        number,
        title,
        stage,
        teamId,
        team: parsed(team),
        createdAt,
        solvedAt,
        backAt,
        incidents,
        openIncidents,
      },
      ...{
        workaround,
        articleId,
        assignee: assigneeId === null ? null : (people.get(assigneeId) ?? null),
        row,
      },
    };
  });
}

const withoutRow = ({ row: _, ...card }: ProblemCard & { row: Row }): ProblemCard => card;

/** Problems, the open ones first. */
export async function listProblems(viewing: Viewing): Promise<ProblemCard[]> {
  return (await readRows(viewing, "t.state <> 'withdrawn'")).map(withoutRow);
}

type Tied = {
  number: number;
  title: string;
  state: TicketState;
  createdAt: number;
  tie: ProblemIncidentRow['tie'];
  reason: string;
  cost: number;
};

/** Working time that a ticket took until it was done, by its target for that: what is still open counts as far as it is. */
const COST = `COALESCE((SELECT MAX(c.elapsed) FROM clocks c JOIN targets g ON g.id = c.targetId AND g.measures = 'resolution' WHERE c.ticketNumber = t.number), 0)`;

async function readTied({ listo, viewer }: Viewing, number: number): Promise<Tied[]> {
  const visible = visibleTo(viewer);
  return listo.db.select<Tied>(
    `SELECT t.number, t.title, t.state, t.createdAt, n.tie, n.reason, ${COST} AS cost FROM problem_incidents n
       JOIN tickets t ON t.number = n.incidentNumber AND ${visible.sql}
     WHERE n.problemNumber = :number ORDER BY t.createdAt DESC, t.number DESC`,
    { ...visible.values, number },
  );
}

/** Incidents a week in the weeks before an instant, the oldest first. */
function countByWeek(instants: number[], until: number): number[] {
  return Array.from({ length: WEEKS }, (_, i) => {
    const to = until - (WEEKS - 1 - i) * WEEK;
    return instants.filter((at) => at > to - WEEK && at <= to).length;
  });
}

/** How often incidents come since a problem was solved, against the weeks before. */
function effectOf(instants: number[], solvedAt: number | null, now: number): Problem['effect'] {
  if (solvedAt === null) return null;
  const first = Math.min(solvedAt - WEEK, ...instants);
  const before = { count: instants.filter((at) => at <= solvedAt).length, ms: solvedAt - first };
  const after = { count: instants.filter((at) => at > solvedAt).length, ms: now - solvedAt };
  const ratio = rateRatio(before, after);
  return ratio && { ...ratio, high: Number.isFinite(ratio.high) ? ratio.high : null };
}

/** A problem with all that is known of it. */
export async function readProblem({ listo, viewer }: Viewing, number: number): Promise<Problem> {
  const viewing = { listo, viewer };
  const { ticket, guarded } = await requireTicket(viewing, { number, action: 'readNotes' });
  const [card] = await readRows(viewing, 't.number = :number', { number });
  if (!card) throw new ProblemError('notFound');
  const visible = visibleTo(viewer);
  const [tied, ties, network, works] = await Promise.all([
    readTied(viewing, number),
    listo.db.tables.ticketThings.find({ ticketNumber: number }),
    readNetwork(listo),
    listo.db.select<{ number: number; title: string }>(
      `SELECT t.number, t.title FROM works w JOIN tickets t ON t.number = w.ticketNumber AND ${visible.sql}
       WHERE w.problemNumber = :number ORDER BY t.number`,
      { ...visible.values, number },
    ),
  ]);
  const { cause, causeKindId, version } = card.row;
  const own = tied.filter(({ tie }) => tie !== 'dropped');
  const instants = own.map(({ createdAt }) => createdAt);
  const now = listo.clock.now();
  return {
    ...{ ...withoutRow(card), cause, causeKindId, version, works },
    things: await readRefs(
      viewing,
      network,
      ties.map(({ thingId }) => thingId),
    ),
    tied: tied.map(({ number: incident, title, state, createdAt, tie, reason }) => ({
      ...{ number: incident, title, state, at: createdAt, tie, reason },
    })),
    cost: own.reduce((sum, { cost }) => sum + cost, 0),
    byWeek: countByWeek(instants, card.solvedAt ?? now),
    effect: effectOf(instants, card.solvedAt, now),
    mayChange: may(createRights(viewer), 'work', guarded) || ticket.requesterId === viewer.id,
  };
}

/** What keeps breaking within some days, as far as one sees it. */
export async function readRecurring({ listo, viewer }: Viewing, days: number): Promise<RecurringGroup[]> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const viewing = { listo, viewer };
  const visible = visibleTo(viewer);
  const incidents = await listo.db.select<Incident>(
    `SELECT t.number, t.title, t.serviceId, ${COST} AS cost,
       (SELECT MIN(x.thingId) FROM ticket_things x WHERE x.ticketNumber = t.number) AS thingId
     FROM tickets t WHERE t.kind = 'incident' AND t.createdAt > :since AND t.state <> 'withdrawn' AND ${visible.sql}
     ORDER BY t.number DESC LIMIT :limit`,
    { ...visible.values, since: listo.clock.now() - days * 86_400_000, limit: MOST_INCIDENTS },
  );
  const open = await readRows(viewing, "b.stage <> 'solved' AND t.state <> 'withdrawn'");
  const numbers = open.map(({ number }) => number);
  const { tables } = listo.db;
  const ties = numbers.length === 0 ? [] : await tables.problemIncidents.find({ problemNumber: numbers });
  const things = numbers.length === 0 ? [] : await tables.ticketThings.find({ ticketNumber: numbers });
  const problems = open.map(({ number }): OpenProblem => ({
    id: String(number),
    thingId: things.find(({ ticketNumber }) => ticketNumber === number)?.thingId ?? null,
    numbers: ties.flatMap((row) =>
      row.problemNumber === number && row.tie !== 'dropped' ? row.incidentNumber : [],
    ),
  }));
  const groups = recurring(incidents, problems).slice(0, 100);
  const network = await readNetwork(listo);
  const refs = await readRefs(
    viewing,
    network,
    groups.flatMap(({ thingId }) => thingId ?? []),
  );
  const services = await tables.services.find({ id: groups.flatMap(({ serviceId }) => serviceId ?? []) });
  const titles = new Map(incidents.map(({ number, title }) => [number, title]));
  return groups.map(({ thingId, serviceId, numbers: own, cost, problemId }) => {
    const problem = open.find(({ number }) => String(number) === problemId);
    return {
      thing: refs.find(({ id }) => id === thingId) ?? null,
      ...{ serviceId, service: services.find(({ id }) => id === serviceId)?.title ?? null },
      ...{ title: titles.get(own.at(-1)!) ?? '', numbers: own, cost },
      problem: problem ? { number: problem.number, title: problem.title } : null,
    };
  });
}

/** The problems that a ticket may come of, and known errors whose words fit it. */
export async function readProblemsOf({ listo, viewer }: Viewing, number: number) {
  const viewing = { listo, viewer };
  const { ticket } = await requireTicket(viewing, { number, action: 'readNotes' });
  const ties = await listo.db.tables.problemIncidents.find({ incidentNumber: number });
  const ids = ties.map(({ problemNumber }) => problemNumber);
  const tied = ids.length === 0 ? [] : await readRows(viewing, 't.number IN (:ids)', { ids });
  const known =
    ticket.kind === 'incident'
      ? await readRows(viewing, "b.stage NOT IN ('solved') AND t.state <> 'withdrawn'")
      : [];
  const described = known
    .filter((card) => !ids.includes(card.number))
    .map((card) => ({ ...card.row, number: card.number, words: '', requesterId: '' }));
  const like = rankSimilar({ ...ticket, words: '' }, described, { least: LEAST_FIT }).slice(0, OFFERED);
  return {
    tied: tied.map((card) => ({
      ...withoutRow(card),
      tie: ties.find(({ problemNumber }) => problemNumber === card.number)!.tie,
    })),
    fitting: like.flatMap((each) => known.filter((card) => card.number === each.number).map(withoutRow)),
  };
}
