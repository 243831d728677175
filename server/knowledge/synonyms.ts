import { readsDesk } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { forgetLibrary, SYNONYMS_SETTING, type SynonymSetting } from './library';
import type { Changing } from '../unitOfWork';

export async function readSynonyms({ db }: Listo): Promise<SynonymSetting> {
  const setting = await db.tables.settings.findOne({ name: SYNONYMS_SETTING });
  return (setting?.value as SynonymSetting | undefined) ?? { en: '', pt: '', version: 0 };
}

/** Changes which words stand for the same. */
export async function setSynonyms(
  { listo, viewer, actor }: Changing,
  { version, ...words }: SynonymSetting,
): Promise<{ version: number }> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const answer = await change(listo, actor, async (tx) => {
    const before = await listo.db.tables.settings.findOne({ name: SYNONYMS_SETTING }, tx, true);
    const known = (before?.value as SynonymSetting | undefined)?.version ?? 0;
    if (known !== version) throw new ProblemError('stale');
    const value = { ...words, version: version + 1 };
    await listo.db.tables.settings.insertAll([{ name: SYNONYMS_SETTING, value }], tx, { updates: ['value'] });
    return { version: version + 1 };
  });
  forgetLibrary(listo);
  return answer;
}
