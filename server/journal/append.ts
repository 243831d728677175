import { aboutOf, type JournalEntry, type NewEntry, type NewSettingEntry } from '../../core/journal';
import type { Listo } from '../listo';
import type { UnitOfWork } from '../unitOfWork';
import { chainOf, keyOf } from './chain';

/** An entry with what most entries say alike. @param now ms since 1970 */
export function toEntry(now: number, entry: NewEntry): JournalEntry {
  const aboutId = aboutOf(entry);
  return { at: now, work: 'ticket', changes: {}, data: {}, ...(aboutId !== null && { aboutId }), ...entry };
}

/** Appends to the journal inside the transaction of the change that it records. Answers the entry's id. */
export async function append({ listo, tx }: UnitOfWork, entry: NewEntry): Promise<number> {
  const [byRules, keyId] = [chainOf(tx), keyOf(tx)];
  const written = {
    ...toEntry(listo.clock.now(), entry),
    ...(byRules && { byRules }),
    // Whatever door a service names: what a program does came by the interface for programs.
    ...(keyId !== null && entry.actorId !== null && { keyId, via: 'api' as const }),
  };
  return listo.db.tables.journal.insert(written, tx);
}

/** Appends what someone did that changed nothing else (came in, looked, took something out), by itself. */
export function record(listo: Listo, entry: NewSettingEntry & { by: string | null }): Promise<number> {
  return listo.db.transaction((tx) => appendSetting({ listo, tx }, entry));
}

/** Appends that someone took something out as a file. @param what a word for it, of at most 60 characters */
export const recordExport = (listo: Listo, personId: string, what: string): Promise<number> =>
  record(listo, { by: personId, type: 'exported', data: { personId, what: what.slice(0, 60) } });

/**
 * Appends what someone changed in the organisation or its settings, for those who work in it to see.
 * `by`: who; null: it came about by itself.
 */
export function appendSetting(
  { listo, tx }: UnitOfWork,
  { by, ...entry }: NewSettingEntry & { by: string | null },
): Promise<number> {
  const via = by === null ? ('rule' as const) : ('desk' as const);
  return append({ listo, tx }, { ...entry, actorId: by, via, ticketNumber: null, audience: 'team' });
}
