import type { TalkView } from '../../contract/assistant';
import { titleOf } from '../../core/assistant';
import { inLanguage } from '../../core/knowledge';
import { findService } from '../catalogue/services';
import type { Listo } from '../listo';
import type { TalkRow } from './model';
import { readOwnWords } from './words';

/** A conversation as it is shown; the sureness only to those who look after the assistant. */
export async function viewTalk(listo: Listo, row: TalkRow, withLikely = false): Promise<TalkView> {
  const { tables } = listo.db;
  const turns = await tables.talkTurns.find({ talkId: row.id }, { order: ['place'] });
  const { language, state } = row;
  const { closing } = await readOwnWords(listo);
  const matters = await tables.matters.find({});
  const nameOf = (id: string | null): string | null => {
    const name = matters.find((matter) => matter.id === id)?.name;
    return name ? inLanguage(name, language) : null;
  };
  const matter = matters.find(({ id }) => id === state.matterId);
  const rules = matter ? await findService(listo, matter.serviceId) : null;
  return {
    ...{ id: row.id, phase: state.phase, outcome: row.outcome, rating: row.rating },
    matter: nameOf(state.matterId),
    title: titleOf(state) ?? null,
    serviceId: matter?.serviceId ?? null,
    closing: closing[language] || null,
    fields: Object.entries(state.fields).map(([name, value]) => {
      const asked = rules?.service.form.fields.find((field) => field.name === name);
      return { name, label: asked?.label[language] ?? name, value };
    }),
    turns: turns.map(({ place, at, isByPerson, said, likely }) => ({
      ...said,
      ...{ place, at, by: isByPerson ? ('person' as const) : ('assistant' as const) },
      ...(withLikely &&
        likely && {
          likely: likely.map(({ id, sureness }) => ({ name: nameOf(id), sureness })),
        }),
    })),
  };
}
