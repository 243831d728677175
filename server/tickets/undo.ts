import { factsOfEntry, inOne, type EntryKind } from '../../core/journal';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from './guard';
import type { TicketRecord } from './model';
import { recordChange } from './record';
import type { UnitOfWork, WorkOfViewer } from '../unitOfWork';

/** What an undo does not put back: when it happened, and what follows by itself. */
const STAYS = new Set(['answered', 'takenUp']);
/** So long one's own move can be taken back; its page offers it for less. In ms. */
const UNDO_MS = 60_000;
/** The moves that one can take back oneself. */
const UNDONE = new Set<EntryKind>(['taken', 'held', 'resumed', 'givenOn', 'done']);
/** What Listo itself changes upon a move; it is taken back with it. */
const FOLLOWS = new Set<EntryKind>(['routed']);

/** Puts back what an entry changed, where it is still as the entry left it. */
async function putBack(
  { listo, tx }: UnitOfWork,
  {
    personId,
    ticket,
    entry,
  }: { personId: string; ticket: TicketRecord; entry: Pick<JournalRow, 'id' | 'changes'> },
): Promise<number> {
  const changes = Object.entries(entry.changes).filter(([field]) => !STAYS.has(field));
  const isAsLeft = changes.every(
    ([field, { to }]) =>
      JSON.stringify(ticket[field as keyof typeof ticket] ?? null) === JSON.stringify(to ?? null),
  );
  if (!isAsLeft) throw new ProblemError('stale', { differences: [] });
  const before = Object.fromEntries(changes.map(([field, { from }]) => [field, from ?? null]));
  const { version } = await recordChange({ listo, tx }, ticket, {
    changes: before,
    entry: {
      ...{ type: 'undone', actorId: personId, via: 'desk', audience: 'team' },
      data: { undoes: entry.id },
    },
  });
  return version;
}

/** Takes back what an entry changed, by the right to work on its ticket; without an entry nothing had changed. */
export async function undoEntry(
  { listo, tx, viewer }: WorkOfViewer,
  { number, entryId }: { number: number; entryId: number | null },
): Promise<void> {
  if (entryId === null) return;
  const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'work' });
  const entry = await listo.db.tables.journal.findOne({ id: entryId }, tx);
  const changes = entry?.changes ?? {};
  await putBack({ listo, tx }, { personId: viewer.id, ticket, entry: { id: entryId, changes } });
}

/**
 * Takes one's own move back, and whom the work went to by itself upon it, as long as nobody did anything since. Whoever gave a ticket away may have lost the right to work
 * on it by that; taking it back is theirs all the same.
 * @param version what the move left the ticket with
 */
export function undoMove(
  listo: Listo,
  { viewer, actor, number }: { viewer: SignedIn; actor: Actor; number: number },
  version: number,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'read' });
    const entries = await listo.db.tables.journal.find(
      { ticketNumber: number, work: 'ticket' },
      { order: [['id', 'DESC']], limit: 20, transaction: tx },
    );
    const index = entries.findIndex(
      (entry) =>
        entry.actorId === viewer.id && UNDONE.has(entry.type) && factsOfEntry(entry).version === version,
    );
    const made = entries[index];
    if (!made || listo.clock.now() - made.at > UNDO_MS) throw new ProblemError('moveNotAllowed');
    const since = entries.slice(0, index).filter(({ changes }) => Object.keys(changes).length > 0);
    const isAlone = since.every(({ type }) => FOLLOWS.has(type));
    if (!isAlone || ticket.version !== version + since.length)
      throw new ProblemError('stale', { differences: [] });
    const changes = inOne([made, ...since.reverse()].map((entry) => entry.changes));
    return {
      version: await putBack({ listo, tx }, { personId: viewer.id, ticket, entry: { id: made.id, changes } }),
    };
  });
}
