import type { Grouping } from '../../contract/complianceNames';
import type { Language } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import type { Listo } from '../listo';

/** What the teams and services that figures are parted by are called; kinds and priorities have their keys. */
export async function readGroupNames(
  { db }: Listo,
  language: Language,
): Promise<(by: Grouping, key: string) => string> {
  const teams = new Map((await db.tables.teams.find({})).map(({ id, name }) => [id, name]));
  const services = new Map((await db.tables.services.find({})).map(({ id, title }) => [id, title]));
  return (by, key) => {
    const text = by === 'team' ? teams.get(key) : by === 'service' ? services.get(key) : undefined;
    return text ? inLanguage(text, language) : key;
  };
}
