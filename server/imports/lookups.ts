import type { Reading } from '../../contract/imports';
import { chooseByName, type Lookups } from '../../core/imports';
import { foldText } from '../../core/text';
import { IMPACTS, URGENCIES } from '../../core/tickets';
import type { Listo } from '../listo';

/** Who and what some words mean: people by id, mail, telephone or name, services by id or title. */
export async function readLookups(listo: Listo, { names }: Reading): Promise<Lookups> {
  const { select, tables } = listo.db;
  const people = await select<{ id: string; name: string; email: string; phone: string }>(
    'SELECT id, name, email, phone FROM people WHERE leftAt IS NULL',
  );
  const byWords = new Map<string, { id: string } | 'several'>();
  for (const { id, name, email, phone } of people)
    for (const words of new Set([id, name, email, phone.replace(/\s/g, '')].map((each) => foldText(each))))
      if (words !== '') byWords.set(words, byWords.has(words) ? 'several' : { id });
  const services = await tables.services.find({});
  const byTitle = new Map(
    services.flatMap(({ id, title }) =>
      [id, title.en, title.pt].map((each) => [foldText(each), id] as const),
    ),
  );
  return {
    person: (words) =>
      byWords.get(foldText(words)) ?? byWords.get(foldText(words.replace(/\s/g, ''))) ?? 'nobody',
    service: (words) => byTitle.get(foldText(words)) ?? null,
    impact: chooseByName(IMPACTS, (choice) => names.impact[choice] ?? []),
    urgency: chooseByName(URGENCIES, (choice) => names.urgency[choice] ?? []),
  };
}

/** What some words name: an id itself, or any of its names. */
export function byName(named: [id: string, names: string[]][]): (words: string) => string | null {
  const ids = new Map(
    named.flatMap(([id, names]) => [id, ...names].map((each) => [foldText(each), id] as const)),
  );
  return (words) => ids.get(foldText(words)) ?? null;
}
