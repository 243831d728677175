import type { Transaction } from 'sequelize';
import { countedOtherwise, moveProgress, type ProgressLabel } from '../../core/tickets';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { TicketRecord } from './model';
import { recordChange } from './record';
import type { UnitOfWork } from '../unitOfWork';

/** So many tickets are settled at a stretch. */
const PART = 200;

/** When each of some tickets was given the label that it has, in ms since 1970. */
async function readLabelled(
  { db }: Listo,
  tickets: TicketRecord[],
  tx: Transaction,
): Promise<Map<number, number>> {
  const rows = await db.select<{ number: number; at: number }>(
    `SELECT t.number, MAX(j.at) AS at FROM tickets t JOIN journal j ON j.ticketNumber = t.number
       AND JSON_VALUE(j.changes, '$.progressId.to') = t.progressId WHERE t.number IN (:numbers) GROUP BY t.number`,
    { numbers: tickets.map(({ number }) => number) },
    tx,
  );
  return new Map(rows.map(({ number, at }) => [number, at]));
}

/** Marks the tickets that carry a label as finished since they have it, or no longer. */
async function settleLabels(
  { listo, tx }: UnitOfWork,
  { ids, labels, teamId }: { ids: string[]; labels: ProgressLabel[]; teamId: string },
): Promise<void> {
  const { tables } = listo.db;
  for (let after = 0; ;) {
    const found = await listo.db.select<{ number: number }>(
      'SELECT number FROM tickets WHERE teamId = :teamId AND progressId IN (:ids) AND number > :after ORDER BY number LIMIT :most',
      { teamId, ids, after, most: PART },
      tx,
    );
    if (found.length === 0) return;
    const numbers = found.map(({ number }) => number);
    after = numbers.at(-1)!;
    const tickets = await tables.tickets.find({ number: numbers }, { transaction: tx, lock: true });
    const labelled = await readLabelled(listo, tickets, tx);
    for (const ticket of tickets) {
      const since = labelled.get(ticket.number) ?? ticket.changedAt;
      const wanted = moveProgress(labels, ticket, ticket.progressId, since);
      await recordChange({ listo, tx }, ticket, {
        changes: wanted,
        entry: {
          ...{ type: 'changed', actorId: null, via: 'rule', audience: 'team' },
        },
      });
    }
  }
}

type Labels = { from: ProgressLabel[]; to: ProgressLabel[] };
const labelsOf = ({ changes }: JournalRow): Labels | undefined =>
  changes.progressLabels as Labels | undefined;

/** What a team makes count as finished, or no longer, holds for its tickets that carry the label already. */
export const progressConsumer: Consumer = {
  name: 'progress',
  hears: (entry) => entry.type === 'teamChanged' && labelsOf(entry) !== undefined,
  async handle(listo, entries, tx) {
    for (const entry of entries) {
      const { from, to } = labelsOf(entry)!;
      const ids = countedOtherwise(from, to);
      const { teamId } = entry.data as { teamId: string };
      const team = await listo.db.tables.teams.findOne({ id: teamId }, tx);
      // By the labels as they are now: they may have been changed again.
      if (team && ids.length > 0)
        await settleLabels({ listo, tx }, { ids, labels: team.progressLabels, teamId });
    }
  },
};
