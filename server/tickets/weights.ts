import { DEFAULT_WEIGHTS, getHeadStart, type OrderWeights } from '../../core/worklist';
import { OPEN_STATES, PRIORITIES } from '../../core/tickets';
import type { Database } from '../database/database';
import type { Listo } from '../listo';
import type { TicketRecord } from './model';
import type { UnitOfWork } from '../unitOfWork';

type Weighed = Pick<TicketRecord, 'teamId' | 'priority' | 'requesterId' | 'waitsSince'>;
type Kept = { weights: Map<string, OrderWeights>; goingFirst: Set<string>; until: number };

/** A process goes by what it has read for so long; changing the weights forgets it here, and places every ticket anew. */
const KNOWN_MS = 5_000;
const known = new WeakMap<Database, Kept>();

export function forgetWeights({ db }: Listo): void {
  known.delete(db);
}

async function readKept(listo: Listo): Promise<Kept> {
  const kept = known.get(listo.db);
  if (kept && performance.now() < kept.until) return kept;
  const teams = await listo.db.tables.teams.find({}, { attributes: ['id', 'orderWeights'] });
  const first = await listo.db.tables.people.find({ goesFirst: true }, { attributes: ['id'] });
  const fresh = {
    weights: new Map(teams.map(({ id, orderWeights }) => [id, orderWeights ?? DEFAULT_WEIGHTS])),
    goingFirst: new Set(first.map(({ id }) => id)),
    until: performance.now() + KNOWN_MS,
  };
  known.set(listo.db, fresh);
  return fresh;
}

export async function weightsOf(listo: Listo, teamId: string): Promise<OrderWeights> {
  return (await readKept(listo)).weights.get(teamId) ?? DEFAULT_WEIGHTS;
}

/** Its head start in the order of what moves next. */
export async function headStartOf(listo: Listo, ticket: Weighed): Promise<number> {
  const { weights, goingFirst } = await readKept(listo);
  return getHeadStart(weights.get(ticket.teamId) ?? DEFAULT_WEIGHTS, {
    ...ticket,
    goesFirst: goingFirst.has(ticket.requesterId),
  });
}

/** Places all open tickets of a team by other weights: the SQL reading of core's head start. */
export async function placeAnew(
  { listo, tx }: UnitOfWork,
  teamId: string,
  weights: OrderWeights,
): Promise<void> {
  const byPriority = PRIORITIES.map((priority) => `WHEN '${priority}' THEN ${weights.priority[priority]}`);
  await listo.db.run(
    `UPDATE tickets t JOIN people p ON p.id = t.requesterId SET t.headStart = (CASE t.priority ${byPriority.join(' ')} END
       + IF(t.waitsSince IS NULL, 0, :waiting) + IF(p.goesFirst, :first, 0)) * 3600000
     WHERE t.teamId = :teamId AND t.state IN (:states)`,
    { teamId, states: OPEN_STATES, waiting: weights.waiting, first: weights.goesFirst },
    tx,
  );
}
