import { parsed } from '../database/json';
import type { Work, WorkCard } from '../../contract/works';
import type { LocalText } from '../../core/forms';
import { reach } from '../../core/estate';
import { createRights, may, readsDesk } from '../../core/rights';
import { actsOf, BESIDE_MS, isBeside, needsReview, stageOf, type WorkStage } from '../../core/works';
import { readRefs } from '../estate/cards';
import { readNetwork } from '../estate/network';
import { ProblemError } from '../http/problems';
import { readPeople } from '../people/names';
import { requireTicket } from '../tickets/guard';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import type { WorkRow } from './model';
import { reckon } from './reckon';

type Row = WorkRow & {
  title: string;
  state: never;
  heldFor: string | null;
  isDeclined: number;
  teamId: string;
  team: LocalText | string;
  requesterId: string;
  thingIds: string | null;
};

/** Changes as lists show them, as far as one sees them. @param where SQL of `w` (works) and `t` (tickets) */
export async function readWorkCards(
  { listo, viewer }: Viewing,
  where: string,
  values: Record<string, unknown> = {},
): Promise<(WorkCard & { work: WorkRow })[]> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const visible = visibleTo(viewer);
  const rows = await listo.db.select<Row>(
    `SELECT w.*, t.title, t.state, t.heldFor, t.isDeclined, t.teamId, tm.name AS team, t.requesterId,
       (SELECT GROUP_CONCAT(x.thingId ORDER BY x.thingId) FROM work_things x WHERE x.ticketNumber = t.number) AS thingIds
     FROM works w JOIN tickets t ON t.number = w.ticketNumber AND ${visible.sql} JOIN teams tm ON tm.id = t.teamId
     WHERE ${where} ORDER BY w.fromAt IS NULL, w.fromAt, t.number LIMIT 2000`,
    { ...visible.values, ...values },
  );
  const people = await readPeople(
    listo,
    rows.map(({ requesterId }) => requesterId),
  );
  return rows.map((row) => {
    const {
      ticketNumber: number,
      title,
      sort,
      fromAt,
      toAt,
      startedAt,
      endedAt,
      risk,
      teamId,
      requesterId,
      version,
    } = row;
    const stage = stageOf(row, { state: row.state, heldFor: row.heldFor, isDeclined: row.isDeclined === 1 });
    const isOwn = requesterId === viewer.id || viewer.teams.some((team) => team.teamId === teamId);
    return {
      ...{ number, title, sort, stage, fromAt, toAt, startedAt, endedAt, risk, teamId, version, work: row },
      ...{
        team: parsed(row.team),
        thingIds: row.thingIds?.split(',') ?? [],
        requester: people.get(requesterId)!,
      },
      mayMove: isOwn && actsOf(stage, sort).includes('change'),
    };
  });
}

const withoutRow = ({ work: _, ...card }: WorkCard & { work: WorkRow }): WorkCard => card;

/** What of changes is to be done: what goes on first, then what is to be decided and reviewed. */
const ORDER: WorkStage[] = ['goingOn', 'asked', 'planned', 'draft', 'failed', 'takenBack', 'done'];

/** Changes that are to be written, decided, done or reviewed, and those that ended lately. */
export async function listWorks(viewing: Viewing): Promise<WorkCard[]> {
  const cards = await readWorkCards(
    viewing,
    "(t.state IN ('received', 'inWork', 'held') OR w.endedAt > :since OR (w.outcome IS NOT NULL AND w.reviewedAt IS NULL AND (w.sort = 'emergency' OR w.outcome <> 'done')))",
    { since: viewing.listo.clock.now() - 7 * 86_400_000 },
  );
  const placeOf = ({ stage }: WorkCard): number => ORDER.indexOf(stage);
  return cards
    .filter(({ stage }) => ORDER.includes(stage))
    .map(withoutRow)
    .sort((a, b) => placeOf(a) - placeOf(b));
}

/** A change with all that is known of it. */
export async function readWork({ listo, viewer }: Viewing, number: number): Promise<Work> {
  const viewing = { listo, viewer };
  const { ticket, guarded } = await requireTicket(viewing, { number, action: 'readNotes' });
  const [card] = await readWorkCards(viewing, 't.number = :number', { number });
  if (!card) throw new ProblemError('notFound');
  const { work: row, ...shown } = card;
  const { tables } = listo.db;
  const [service, template, network, notices, problem, problemTicket] = await Promise.all([
    tables.services.findOne({ id: ticket.serviceId }),
    tables.workTemplates.findOne({ serviceId: ticket.serviceId }),
    readNetwork(listo),
    tables.notices.find({ ofWork: number, calledBackAt: null }),
    row.problemNumber === null ? null : tables.problems.findOne({ ticketNumber: row.problemNumber }),
    row.problemNumber === null ? null : tables.tickets.findOne({ number: row.problemNumber }),
  ]);
  const isOwn = may(createRights(viewer), 'work', guarded) || ticket.requesterId === viewer.id;
  const {
    why,
    test,
    takeBack,
    problemNumber,
    riskSaid,
    riskReason,
    submittedAt,
    outcome,
    review,
    reviewedAt,
  } = row;
  const mayNameProblem =
    problemTicket !== null && (!problemTicket.isConfidential || problemTicket.teamId === ticket.teamId);
  return {
    ...{
      ...shown,
      why,
      test,
      takeBack,
      problemNumber,
      riskSaid,
      riskReason,
      submittedAt,
      outcome,
      review,
      reviewedAt,
    },
    things: await readRefs(viewing, network, shown.thingIds),
    service: { id: ticket.serviceId, title: service!.title },
    isStandard: template?.isStandard ?? false,
    needsReview: needsReview(row.sort, outcome) && reviewedAt === null,
    acts: isOwn ? [...actsOf(shown.stage, row.sort)] : [],
    reckoned: await reckon(viewing, { ...shown, number, serviceId: ticket.serviceId }),
    problem:
      problem && mayNameProblem
        ? { number: problemTicket.number, title: problemTicket.title, stage: problem.stage }
        : null,
    notices: notices.map(({ id, title }) => ({ id, title })),
  };
}

/** The changes that a ticket may come of: begun before it and not longer ago than two days, at its things or what those hang on. */
export async function readBeside(
  { listo, viewer }: Viewing,
  number: number,
): Promise<(WorkCard & { things: Work['things'] })[]> {
  const viewing = { listo, viewer };
  const { ticket } = await requireTicket(viewing, { number, action: 'readNotes' });
  if (ticket.kind === 'change') return [];
  const ties = await listo.db.tables.ticketThings.find({ ticketNumber: number });
  if (ties.length === 0) return [];
  const network = await readNetwork(listo);
  const own = ties.map(({ thingId }) => thingId).filter((id) => network.things.has(id));
  const below = new Set(reach(network, own, { way: 'below' }).keys());
  const cards = await readWorkCards(
    viewing,
    'w.startedAt <= :at AND (w.endedAt IS NULL OR w.endedAt > :since)',
    { at: ticket.createdAt, since: ticket.createdAt - BESIDE_MS },
  );
  const found = cards.filter(
    ({ work, thingIds }) =>
      work.startedAt !== null &&
      isBeside({ startedAt: work.startedAt, endedAt: work.endedAt }, ticket.createdAt) &&
      thingIds.some((id) => below.has(id)),
  );
  return Promise.all(
    found.map(async (card) => ({
      ...withoutRow(card),
      things: await readRefs(
        viewing,
        network,
        card.thingIds.filter((id) => below.has(id)),
      ),
    })),
  );
}
