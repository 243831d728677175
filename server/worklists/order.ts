import { mayLead } from '../../core/rights';
import { getMoveBy, type OrderWeights } from '../../core/worklist';
import { PRIORITIES, type Priority } from '../../core/tickets';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { SignedIn } from '../sessions/viewer';
import { NOTHING_DUE } from '../tickets/model';
import { forgetWeights, placeAnew, weightsOf } from '../tickets/weights';
import { visibleTo } from '../tickets/visibility';
import type { Changing, Viewing } from '../unitOfWork';

/** So many of a team's open tickets are placed for a look; so many places are shown. */
const MOST_TRIED = 5_000;
const SHOWN = 12;

type Candidate = {
  number: number;
  title: string;
  priority: Priority;
  createdAt: number;
  tightestDueAt: number;
  waitsSince: number | null;
  goesFirst: number;
};

function requireLead(viewer: SignedIn, teamId: string): void {
  if (!mayLead(viewer, teamId)) throw new ProblemError('forbidden');
}

/** A higher priority never has less of a head start than a lower one. */
function refuseWeights({ priority }: OrderWeights): void {
  const isFalling = PRIORITIES.every((each, i) => i === 0 || priority[each] <= priority[PRIORITIES[i - 1]!]);
  if (!isFalling)
    throw new ProblemError('fieldsNotValid', {
      fields: [{ field: 'weights.priority', code: 'notPossible' }],
    });
}

/** The first places under other weights, each with its place as things are. */
export async function tryOrder({ listo, viewer }: Viewing, teamId: string, weights: OrderWeights) {
  requireLead(viewer, teamId);
  refuseWeights(weights);
  const visible = visibleTo(viewer);
  const tickets = await listo.db.select<Candidate>(
    `SELECT t.number, t.title, t.priority, t.createdAt, t.tightestDueAt, t.waitsSince, p.goesFirst FROM tickets t JOIN people p ON p.id = t.requesterId
     WHERE t.teamId = :teamId AND t.state IN ('received', 'inWork') AND ${visible.sql} ORDER BY t.moveBy, t.number LIMIT :most`,
    { ...visible.values, teamId, most: MOST_TRIED },
  );
  const present = await weightsOf(listo, teamId);
  const orderBy = (given: OrderWeights): Candidate[] => {
    const keyed = tickets.map((ticket) => {
      const dueAt = ticket.tightestDueAt === NOTHING_DUE ? null : ticket.tightestDueAt;
      return { ticket, key: getMoveBy(given, { ...ticket, dueAt, goesFirst: Boolean(ticket.goesFirst) }) };
    });
    return keyed
      .sort((a, b) => a.key - b.key || a.ticket.number - b.ticket.number)
      .map(({ ticket }) => ticket);
  };
  const before = new Map(orderBy(present).map(({ number }, i) => [number, i + 1]));
  const after = orderBy(weights);
  return {
    rows: after.slice(0, SHOWN).map(({ number, title, priority }, i) => ({
      number,
      title,
      priority,
      now: before.get(number)!,
      then: i + 1,
    })),
    moved: after.filter(({ number }, i) => before.get(number) !== i + 1).length,
  };
}

export async function setOrder(
  { listo, viewer, actor }: Changing,
  teamId: string,
  { weights, version }: { weights: OrderWeights; version: number },
) {
  requireLead(viewer, teamId);
  refuseWeights(weights);
  const answer = await change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const team = await tables.teams.findOne({ id: teamId }, tx, true);
    if (!team) throw new ProblemError('notFound');
    if (team.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'orderWeights', theirs: team.orderWeights, yours: weights, by: null }],
      });
    await tables.teams.update({ id: teamId }, { orderWeights: weights, version: version + 1 }, tx);
    await placeAnew({ listo, tx }, teamId, weights);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'teamChanged',
        changes: { orderWeights: { from: team.orderWeights, to: weights } },
        data: { teamId },
      },
    );
    return { version: version + 1 };
  });
  forgetWeights(listo);
  return answer;
}
