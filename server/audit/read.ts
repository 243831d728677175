import type { RecordFilter, RecordView } from '../../contract/records';
import { factsOfEntry, SETTING_ENTRIES, SETTING_ENTRY_KINDS } from '../../core/journal';
import type { JournalRow } from '../journal/model';
import { readNames } from '../people/names';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import { parseEntry } from './parse';

const PAGE = 100;

const ACCESS_KINDS = SETTING_ENTRY_KINDS.filter((kind) => SETTING_ENTRIES[kind] === 'access');

/** A filter as SQL. What happened to a ticket that the viewer may not read is not there. */
function toSql({ viewer }: Viewing, filter: RecordFilter & { before?: number | undefined }) {
  const { person, kind, ticket, only, from, to, before } = filter;
  const visible = visibleTo(viewer);
  const parts = [
    ...(person === undefined ? [] : ['(j.actorId = :person OR j.aboutId = :person)']),
    ...(kind === undefined ? [] : ['j.type = :kind']),
    ...(ticket === undefined ? [] : ['j.ticketNumber = :ticket']),
    ...(only === 'settings' ? ['j.ticketNumber IS NULL'] : []),
    ...(only === 'access' ? ['j.type IN (:access)'] : []),
    ...(only === 'tickets' ? ['j.ticketNumber IS NOT NULL'] : []),
    ...(from === undefined ? [] : ['j.at >= :from']),
    ...(to === undefined ? [] : ['j.at < :to']),
    ...(before === undefined ? [] : ['j.id < :before']),
    `(j.ticketNumber IS NULL OR EXISTS (SELECT 1 FROM tickets t WHERE t.number = j.ticketNumber AND ${visible.sql}))`,
  ];
  const values = {
    ...{ person: person ?? '', kind: kind ?? '', ticket: ticket ?? 0, access: ACCESS_KINDS },
    ...{ from: from ?? 0, to: to ?? 0, before: before ?? 0, ...visible.values },
  };
  return { sql: parts.join(' AND '), values };
}

/** Entries of the journal, the newest first. @param limit at most so many */
export async function readRows(
  viewing: Viewing,
  filter: RecordFilter & { before?: number | undefined },
  limit: number,
): Promise<JournalRow[]> {
  const { sql, values } = toSql(viewing, filter);
  const rows = await viewing.listo.db.select<JournalRow>(
    `SELECT j.* FROM journal j WHERE ${sql} ORDER BY j.id DESC LIMIT :limit`,
    { ...values, limit },
  );
  return rows.map(parseEntry);
}

/** Entries as pages show them, with names for who did it and whom or what it is about. */
export async function toViews({ listo }: Viewing, rows: JournalRow[]): Promise<RecordView[]> {
  const ids = rows.flatMap(({ actorId, aboutId }) => [actorId, aboutId]);
  const names = await readNames(listo, ids);
  const things = await listo.db.tables.things.find(
    { id: [...new Set(rows.flatMap(({ aboutId }) => aboutId ?? []))] },
    { attributes: ['id', 'name'] },
  );
  const nameOf = (id: string): string => names.get(id) ?? things.find((thing) => thing.id === id)?.name ?? id;
  return rows.map((row) => {
    const { name } = factsOfEntry(row);
    const { id, at, via, actorId, aboutId, ticketNumber, changes, keyId } = row;
    return {
      ...{ id, at, kind: row.type, via, ticketNumber, changes, keyId: keyId ?? null },
      actor: actorId === null ? null : { id: actorId, name: nameOf(actorId) },
      about: aboutId == null ? null : { id: aboutId, name: nameOf(aboutId) },
      name: typeof name === 'string' ? name : null,
      data: row.data as Record<string, unknown>,
    };
  });
}

/** A page of the record, the newest first. */
export async function listRecords(
  viewing: Viewing,
  filter: RecordFilter & { before?: number | undefined },
): Promise<{ rows: RecordView[]; before: number | null }> {
  const rows = await readRows(viewing, filter, PAGE + 1);
  const shown = rows.slice(0, PAGE);
  return { rows: await toViews(viewing, shown), before: rows.length > PAGE ? shown.at(-1)!.id : null };
}
