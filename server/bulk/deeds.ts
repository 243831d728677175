import type { Transaction } from 'sequelize';
import type { Deed } from '../../contract/bulk';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { fillReadyText } from '../readyTexts/fill';
import type { SignedIn } from '../sessions/viewer';
import { changeFactsWithin } from '../tickets/changeFacts';
import { requireTicket } from '../tickets/guard';
import { writeWithin } from '../tickets/messages';
import { moveWithin } from '../tickets/move';
import { recordChange } from '../tickets/record';
import type { BulkItemRow } from './model';

/** Does it to one ticket, judged as if it were done to that one alone. */
export async function doDeed(
  listo: Listo,
  tx: Transaction,
  viewer: SignedIn,
  deed: Deed,
  { number, version }: Pick<BulkItemRow, 'number' | 'version'>,
): Promise<void> {
  switch (deed.kind) {
    case 'move':
      await moveWithin(listo, tx, viewer, number, {
        name: deed.name,
        by: 'agent',
        version,
        input: deed.input,
      });
      return;
    case 'facts':
      await changeFactsWithin(listo, tx, viewer, number, { version, ...deed.facts });
      return;
    case 'words': {
      const text = await fillReadyText(listo, viewer, number, deed.text);
      await writeWithin(listo, tx, viewer, number, { text, readBy: deed.readBy, links: [], fileIds: [] });
    }
  }
}

/** What an undo does not put back: when it happened, and what follows by itself. */
const STAYS = new Set(['answered', 'takenUp']);

/** Puts back what an entry changed, where it is still as the entry left it. */
export async function undoEntry(
  listo: Listo,
  tx: Transaction,
  viewer: SignedIn,
  number: number,
  entryId: number | null,
): Promise<void> {
  // Nothing changed, so there is nothing to put back.
  if (entryId === null) return;
  const { ticket } = await requireTicket(listo, viewer, number, 'work', tx);
  const entry = await listo.db.tables.journal.findOne({ id: entryId }, tx);
  const changes = Object.entries(entry?.changes ?? {}).filter(([field]) => !STAYS.has(field));
  const isAsLeft = changes.every(
    ([field, { to }]) =>
      JSON.stringify(ticket[field as keyof typeof ticket] ?? null) === JSON.stringify(to ?? null),
  );
  if (!isAsLeft) throw new ProblemError('stale', { differences: [] });
  const before = Object.fromEntries(changes.map(([field, { from }]) => [field, from ?? null]));
  await recordChange(listo, tx, ticket, before, {
    ...{ type: 'undone', actorId: viewer.id, via: 'desk', audience: 'team' },
    data: { undoes: entryId },
  });
}
