import type { AssistantWords } from '../../contract/assistant';
import type { Language } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { fillBlanks } from '../../core/text';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { createReader } from '../knowledge/find';
import { readLibrary } from '../knowledge/library';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTeacher } from './matters';
import type { Said } from './model';
import type { Changing } from '../unitOfWork';

export const WORDS_SETTING = 'assistantWords';
const NOTHING = { en: '', pt: '' };
const USUAL: AssistantWords = {
  ...{ greeting: NOTHING, handOver: NOTHING, thanks: NOTHING, followUp: NOTHING, closing: NOTHING },
  isOn: true,
  ...{ greetsWith: [], version: 0 },
};

export async function readOwnWords({ db }: Listo): Promise<AssistantWords> {
  const setting = await db.tables.settings.findOne({ name: WORDS_SETTING });
  return { ...USUAL, ...(setting?.value as AssistantWords | undefined) };
}

export async function setOwnWords(
  { listo, viewer, actor }: Changing,
  { version, ...words }: AssistantWords,
): Promise<{ version: number }> {
  requireTeacher(viewer);
  return change(listo, actor, async (tx) => {
    const before = await listo.db.tables.settings.findOne({ name: WORDS_SETTING }, tx, true);
    const known = (before?.value as AssistantWords | undefined)?.version ?? 0;
    if (known !== version) throw new ProblemError('stale');
    const value = { ...words, version: version + 1 };
    await listo.db.tables.settings.insertAll([{ name: WORDS_SETTING, value }], tx, { updates: ['value'] });
    return { version: version + 1 };
  });
}

/** The greeting with what is often read and asked for, as far as this person may read it. */
export async function greet(listo: Listo, viewer: SignedIn): Promise<Said> {
  const { greeting, greetsWith } = await readOwnWords(listo);
  const { language } = viewer;
  const name = viewer.name.split(' ')[0]!;
  const library = await readLibrary(listo);
  const isReader = await createReader(listo, viewer.id);
  const idsOf = (kind: string): string[] =>
    greetsWith.filter((each) => each.kind === kind).map(({ id }) => id);
  const articles = idsOf('article').flatMap((id) => {
    const article = library.articles.get(id);
    if (!article || !isReader(article)) return [];
    return [{ id, title: inLanguage(article.words.title, language), passage: [], helped: 0, judged: 0 }];
  });
  const rows = await listo.db.tables.services.find({ id: idsOf('service'), isOn: true });
  const services = rows.map(({ id, title }) => ({ id, name: inLanguage(title, language) }));
  return {
    ...{ say: 'greeting', text: name, articles, services },
    ...(greeting[language] !== '' && { words: fillBlanks(greeting[language], { name }) }),
  };
}

/** What is said, in the lead's own words where there are any. */
export function withOwnWords(
  said: Said,
  { handOver, thanks, followUp, closing }: AssistantWords,
  language: Language,
): Said {
  const ownOf: Record<string, AssistantWords['thanks'] | undefined> = {
    ...{ glad: thanks, followUp, closed: closing },
    ...(said.isHandOver && { ticket: handOver }),
  };
  const own = ownOf[said.say];
  return own && own[language] !== '' ? { ...said, words: own[language] } : said;
}
