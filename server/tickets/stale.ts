import { factsOfEntry } from '../../core/journal';
import { ProblemError } from '../http/problems';
import { readNames } from '../people/names';
import type { TicketRecord } from './model';
import type { UnitOfWork } from '../unitOfWork';

type Differing = { at: number; actorId: string | null };

/** The fields that changed after a version, with who changed each last. */
async function changedSince(
  { listo, tx }: UnitOfWork,
  number: number,
  version: number,
): Promise<Map<string, Differing>> {
  const entries = await listo.db.tables.journal.find(
    { ticketNumber: number },
    { transaction: tx, order: [['id', 'DESC']], limit: 100 },
  );
  const changed = new Map<string, Differing>();
  for (const { at, actorId, changes, data } of entries.reverse())
    if ((factsOfEntry({ data }).version ?? 0) > version)
      for (const field of Object.keys(changes)) changed.set(field, { at, actorId });
  return changed;
}

/**
 * Refuses a change that rests on an old version, if what it would change has changed since: with the differences.
 * Changes to other fields go together.
 */
export async function refuseStale(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  { version, restsOn }: { version: number; restsOn: Record<string, unknown> },
): Promise<void> {
  if (version === ticket.version) return;
  const changed = await changedSince({ listo, tx }, ticket.number, version);
  const differing = Object.entries(restsOn).filter(
    ([field, yours]) => changed.has(field) && ticket[field as keyof TicketRecord] !== yours,
  );
  if (differing.length === 0) return;
  const isPerson = (field: string) => field === 'assigneeId' || field === 'requesterId';
  const theirsOf = (field: string) => ticket[field as keyof TicketRecord];
  const names = await readNames(
    listo,
    differing.flatMap(([field, yours]) => [
      changed.get(field)!.actorId,
      ...(isPerson(field) ? [yours, theirsOf(field)] : []),
    ]),
  );
  const shown = (field: string, value: unknown) =>
    isPerson(field) ? (names.get(value as string) ?? null) : value;
  const differences = differing.map(([field, yours]) => ({
    field,
    theirs: shown(field, theirsOf(field)),
    yours: shown(field, yours),
    by: names.get(changed.get(field)!.actorId ?? '') ?? null,
  }));
  throw new ProblemError('stale', { differences });
}
