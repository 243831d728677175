import type { FoundArticle } from '../../contract/knowledge';
import type { Language } from '../../core/forms';
import { inLanguage, isOffered, mayRead } from '../../core/knowledge';
import { findPassage } from '../../core/search';
import { readAudiencePerson } from '../catalogue/audience';
import { findService } from '../catalogue/services';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { readLibrary, type Library, type Published } from './library';

const SHOWN = 5;
const WORTH_SHOWING = 0.3;

/** How often those who said so were helped by articles. */
export async function readJudged(
  { db }: Listo,
  ids: string[],
): Promise<Map<string, { helped: number; judged: number }>> {
  if (ids.length === 0) return new Map();
  const rows = await db.select<{ articleId: string; helped: number; judged: number }>(
    `SELECT articleId, CAST(SUM(what = 'helped') AS INT) AS helped, COUNT(*) AS judged FROM article_uses
     WHERE articleId IN (:ids) AND what IN ('helped', 'notHelped') GROUP BY articleId`,
    { ids },
  );
  return new Map(rows.map(({ articleId, ...counts }) => [articleId, counts]));
}

/** Whether someone may read each article. */
export async function createReader(
  listo: Listo,
  personId: string,
): Promise<(article: Pick<Published, 'isOpen' | 'audience'>) => boolean> {
  const person = await readAudiencePerson(listo, personId);
  return (article) => (person ? mayRead(article, person) : article.isOpen);
}

type Asked = {
  q: string;
  language: Language;
  accept(article: Published): boolean;
  most?: number | undefined;
  /** What scores less than this much of the best one answers something else. */
  worth?: number;
};

/** What fits, with the passages that answer. */
export async function findIn(
  listo: Listo,
  library: Library,
  { q, language, accept, most = SHOWN, worth: least = WORTH_SHOWING }: Asked,
): Promise<FoundArticle[]> {
  const index = library.indexes[language];
  const found = index.search(q, most, (id) => {
    const article = library.articles.get(id);
    return article !== undefined && accept(article);
  });
  const worth = found.filter(({ score }) => score >= found[0]!.score * least);
  const weights = index.weigh(q);
  const judged = await readJudged(
    listo,
    worth.map(({ id }) => id),
  );
  return worth.map(({ id }) => {
    const { words, plain } = library.articles.get(id)!;
    return {
      id,
      title: inLanguage(words.title, language),
      passage: findPassage(plain[language], weights, language),
      ...(judged.get(id) ?? { helped: 0, judged: 0 }),
    };
  });
}

/** From this much of what is asked on, an article is taken to answer it. */
const ANSWERS_FROM = 0.7;

/** The article that answers a question, as far as someone may read it; null: none does. */
export async function findAnswer(
  listo: Listo,
  { id: personId, language }: Pick<SignedIn, 'id' | 'language'>,
  q: string,
): Promise<FoundArticle | null> {
  const library = await readLibrary(listo);
  const accept = await createReader(listo, personId);
  const [first] = await findIn(listo, library, { q, language, accept, most: 1 });
  return first && library.indexes[language].coverage(q, first.id) >= ANSWERS_FROM ? first : null;
}

/** Articles for the words typed so far; those of a service alone where it offers only some. */
export async function findArticles(
  listo: Listo,
  { id: personId, language }: Pick<SignedIn, 'id' | 'language'>,
  {
    q,
    service,
    team,
    most,
  }: { q: string; service?: string | undefined; team?: string | undefined; most?: number },
): Promise<FoundArticle[]> {
  const library = await readLibrary(listo);
  const isReader = await createReader(listo, personId);
  const rules = service === undefined ? null : await findService(listo, service);
  const wanted = rules ? rules.service.articleLabels : null;
  return findIn(listo, library, {
    ...{ q, language, most },
    accept: (article) =>
      (team === undefined || article.teamId === team) &&
      isOffered(wanted, article.labels) &&
      isReader(article),
  });
}
