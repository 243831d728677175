import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import { assign, assignWaiting, setGoingOn } from './assign';

/** Entries by which work comes to wait for a person. */
const ARRIVALS = new Set(['sent', 'granted', 'givenOn', 'reopened', 'resumed', 'undone']);
/** Entries by which someone may have room again. */
const FREEING = new Set(['done', 'closed', 'withdrawn', 'held', 'givenOn', 'declined']);

const isArrival = ({ type, ticketNumber }: JournalRow): boolean =>
  ticketNumber !== null && ARRIVALS.has(type);

const isFreeing = ({ type, changes }: JournalRow): boolean =>
  FREEING.has(type) && Object.keys(changes).length > 0;

/** Finds people for work, and work for people. */
export const routingConsumer: Consumer = {
  name: 'routing',
  hears: (entry) =>
    isArrival(entry) || isFreeing(entry) || entry.type === 'presenceSet' || entry.type === 'routingSet',
  async handle(listo, entries, tx) {
    const { select } = listo.db;
    const routing = await select<{ id: string }>(
      "SELECT id FROM teams WHERE JSON_VALUE(routing, '$.way') <> 'byHand' OR JSON_VALUE(routing, '$.goesOnAfter') IS NOT NULL",
      {},
      tx,
    );
    if (routing.length === 0) return;
    const arrived = entries.filter(isArrival);
    for (const number of new Set(arrived.map(({ ticketNumber }) => ticketNumber!))) {
      await setGoingOn({ listo, tx }, number);
      await assign({ listo, tx }, number);
    }
    const people = new Set(
      entries.flatMap((entry) =>
        entry.type === 'presenceSet'
          ? [entry.data.personId]
          : isFreeing(entry) && typeof entry.changes.assigneeId?.from === 'string'
            ? [entry.changes.assigneeId.from]
            : [],
      ),
    );
    const set = entries.flatMap((entry) => (entry.type === 'routingSet' ? [entry.data] : [])).at(-1);
    const numbers = entries.filter(isFreeing).flatMap(({ ticketNumber }) => ticketNumber ?? []);
    const teams = await select<{ teamId: string }>(
      `SELECT m.teamId FROM team_members m WHERE m.personId IN (:people)
         UNION SELECT m.teamId FROM team_members m JOIN tickets t ON t.assigneeId = m.personId WHERE t.number IN (:numbers)
         UNION SELECT :changed AS teamId`,
      {
        people: [...people],
        numbers,
        changed: set?.teamId ?? '',
      },
      tx,
    );
    for (const { teamId } of teams)
      if (routing.some(({ id }) => id === teamId)) await assignWaiting({ listo, tx }, teamId);
  },
};
