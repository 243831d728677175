import { LANGUAGES, type Language } from '../../core/forms';
import { inLanguage, toPlainText } from '../../core/knowledge';
import { TextIndex, type Synonyms } from '../../core/search';
import type { Database } from '../database/database';
import type { Listo } from '../listo';
import type { ArticleRow, PublishedWords } from './model';

/** An article as readers find it. */
export type Published = Pick<
  ArticleRow,
  'id' | 'teamId' | 'place' | 'labels' | 'isOpen' | 'audience' | 'publishedAt' | 'publishedVersion'
> & { words: PublishedWords; plain: Record<Language, string> };

/** All published articles with the indexes over them, in this process. */
export type Library = {
  articles: Map<string, Published>;
  indexes: Record<Language, TextIndex>;
};

export const SYNONYMS_SETTING = 'synonyms';
export type SynonymSetting = Record<Language, string> & { version: number };

type Kept = Library & {
  readAt: number;
  /** Whether all of it has been read once. */
  isWhole: boolean;
  seen: number;
  synonyms: number;
  reading: Promise<void> | null;
};

/** So long a process goes by what it has read. */
const FRESH_MS = 300;
/** Clocks of two machines may differ by this much. */
const OVERLAP_MS = 5_000;
const CHUNK = 500;

const kept = new WeakMap<Database, Kept>();

/** A line is a group; words in it are parted by commas. */
export const toGroups = (text: string): Synonyms =>
  text
    .split('\n')
    .map((line) =>
      line
        .split(',')
        .map((word) => word.trim())
        .filter((word) => word !== ''),
    )
    .filter((group) => group.length > 1);

function take(library: Library, row: ArticleRow): void {
  const { id, state, published } = row;
  if (state === 'retired' || published === null) {
    library.articles.delete(id);
    for (const language of LANGUAGES) library.indexes[language].remove(id);
    return;
  }
  const plain = {} as Record<Language, string>;
  for (const language of LANGUAGES) {
    plain[language] = toPlainText(inLanguage(published.body, language));
    library.indexes[language].add({
      id,
      title: inLanguage(published.title, language),
      body: plain[language],
      otherWords: `${inLanguage(published.otherWords, language)} ${row.labels.join(' ')}`,
    });
  }
  const { teamId, place, labels, isOpen, audience, publishedAt, publishedVersion } = row;
  library.articles.set(id, {
    id,
    teamId,
    place,
    labels,
    isOpen,
    audience,
    publishedAt,
    publishedVersion,
    words: published,
    plain,
  });
}

/** Reads what has changed since; beginning anew, all of it, in pieces between which others are served. */
async function renew(listo: Listo, library: Kept): Promise<void> {
  const { db } = listo;
  for (let afterId = ''; ;) {
    const rows = await db.select<ArticleRow>(
      `SELECT * FROM articles WHERE changedAt > :seen AND id > :afterId ORDER BY id LIMIT ${CHUNK}`,
      { seen: library.seen - OVERLAP_MS, afterId },
    );
    for (const row of rows) {
      const article = { ...row, isOpen: Number(row.isOpen) === 1 };
      if (isOther(library.articles.get(row.id), article)) take(library, article);
    }
    if (rows.length < CHUNK) break;
    afterId = rows.at(-1)!.id;
    await new Promise((resolve) => setImmediate(resolve));
  }
  const [last] = await db.select<{ at: number | null }>('SELECT MAX(changedAt) AS at FROM articles');
  library.seen = last?.at ?? 0;
  const setting = await db.tables.settings.findOne({ name: SYNONYMS_SETTING });
  const words = setting?.value as SynonymSetting | undefined;
  if (words && words.version !== library.synonyms) {
    for (const language of LANGUAGES) library.indexes[language].setSynonyms(toGroups(words[language]));
    library.synonyms = words.version;
  }
  library.readAt = performance.now();
  library.isWhole = true;
}

/** Whether readers are given something else than what is known. */
function isOther(known: Published | undefined, row: ArticleRow): boolean {
  if (!known || row.state === 'retired' || row.published === null) return true;
  const said = ({ labels, isOpen, audience, place, publishedVersion }: Published | ArticleRow): string =>
    JSON.stringify([labels, isOpen, audience, place, publishedVersion]);
  return said(known) !== said(row);
}

/** Has this process read what has just been changed here. */
export function forgetLibrary({ db }: Listo): void {
  const library = kept.get(db);
  if (library) library.readAt = -Infinity;
}

/** The published articles, as they were at most a moment ago. */
export async function readLibrary(listo: Listo): Promise<Library> {
  let library = kept.get(listo.db);
  if (!library) {
    const indexes = Object.fromEntries(
      LANGUAGES.map((language) => [language, new TextIndex({ language })]),
    ) as Record<Language, TextIndex>;
    library = {
      articles: new Map(),
      indexes,
      readAt: -Infinity,
      isWhole: false,
      seen: 0,
      synonyms: 0,
      reading: null,
    };
    kept.set(listo.db, library);
  }
  const own = library;
  if (performance.now() - own.readAt > FRESH_MS)
    own.reading ??= renew(listo, own).finally(() => {
      own.reading = null;
    });
  // While it is read for the first time, what is there already answers.
  if (own.reading && (own.isWhole || own.articles.size === 0)) await own.reading;
  return own;
}
