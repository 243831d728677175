import type { Language, LocalText } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { parsed } from '../database/json';
import type { Listo } from '../listo';

/** From which table the values of a field have their names. */
const NAMED_BY: Record<string, string> = {
  ...{
    teamId: 'teams.name',
    stepTeamId: 'teams.name',
    groupId: 'team_groups.name',
    serviceId: 'services.title',
  },
  ...{ siteId: 'sites.name', requesterId: 'people.name', assigneeId: 'people.name', personId: 'people.name' },
  ...{
    agentId: 'people.name',
    lineId: 'chat_lines.name',
    matterId: 'matters.name',
    articleId: 'articles.title',
  },
};

/** A name as it was stored: of one language, or of both. */
function toName(stored: string | LocalText, language: Language): string {
  if (typeof stored === 'string' && !stored.startsWith('{')) return stored;
  return inLanguage(parsed<LocalText>(stored), language);
}

/** What some values of a field are called; those that have their words in the catalogue, or are gone, have no name here. */
export async function readNames(
  { db }: Listo,
  { field, language }: { field: string; language: Language },
  ids: string[],
): Promise<Map<string, string>> {
  const named = Object.hasOwn(NAMED_BY, field) ? NAMED_BY[field]!.split('.') : null;
  if (!named || ids.length === 0) return new Map();
  const [table, column] = named;
  const rows = await db.select<{ id: string; name: string | LocalText }>(
    `SELECT id, ${column} AS name FROM ${table} WHERE id IN (:ids)`,
    { ids },
  );
  return new Map(rows.map(({ id, name }) => [id, toName(name, language)]));
}
