import type { ReadArticle } from '../../contract/knowledge';
import type { Language } from '../../core/forms';
import { inLanguage, listMoves } from '../../core/knowledge';
import { readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { createReader, readJudged } from './find';
import { readCounts } from './health';
import { handOf, hasChanges } from './keep';
import { readLibrary } from './library';

/** A published article as it is read: by those it is for, and by everyone where it is open. */
export async function readArticle(
  listo: Listo,
  viewer: SignedIn | undefined,
  { id, wanted }: { id: string; wanted?: Language | undefined },
): Promise<ReadArticle> {
  const article = (await readLibrary(listo)).articles.get(id);
  const isReader = viewer
    ? await createReader(listo, viewer.id)
    : ({ isOpen }: { isOpen: boolean }) => isOpen;
  const hand = article && viewer ? handOf(viewer, article.teamId) : 'none';
  if (!article || (!isReader(article) && hand === 'none')) throw new ProblemError('notFound');
  const { words, teamId, labels, publishedAt } = article;
  const asked = wanted ?? viewer?.language ?? 'en';
  const isWritten = words.body[asked].trim() !== '';
  const language = isWritten ? asked : asked === 'en' ? 'pt' : 'en';
  const team = await listo.db.tables.teams.findOne({ id: teamId });
  const judged = (await readJudged(listo, [id])).get(id) ?? { helped: 0, judged: 0 };
  return {
    ...{ id, labels, language, ...judged },
    title: inLanguage(words.title, language),
    body: inLanguage(words.body, language),
    teamName: team!.name,
    publishedAt: publishedAt!,
    mayEdit: hand !== 'none',
  };
}

/** All that someone may read, by heading. */
export async function browseArticles(listo: Listo, viewer: SignedIn) {
  const { articles } = await readLibrary(listo);
  const isReader = await createReader(listo, viewer.id);
  return [...articles.values()]
    .filter(isReader)
    .map(({ id, place, teamId, labels, words }) => ({
      ...{ id, place, teamId, labels },
      title: inLanguage(words.title, viewer.language),
    }))
    .sort((one, other) => one.title.localeCompare(other.title));
}

function refuseReaders(viewer: SignedIn): void {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
}

/** All articles for those who write: those of one's own teams, and what one may read of others. */
export async function listArticles(listo: Listo, viewer: SignedIn) {
  refuseReaders(viewer);
  const rows = await listo.db.tables.articles.find({}, { order: [['changedAt', 'DESC']] });
  const isReader = await createReader(listo, viewer.id);
  return rows
    .filter((row) => handOf(viewer, row.teamId) !== 'none' || (row.published !== null && isReader(row)))
    .map((row) => ({
      ...{ id: row.id, teamId: row.teamId, place: row.place, labels: row.labels, title: row.title },
      ...{ state: row.state, isOpen: row.isOpen, changedAt: row.changedAt, reviewAt: row.reviewAt },
      isForAll: row.isOpen || row.audience.length === 0,
      hasChanges: hasChanges(row),
    }));
}

/** An article as it is being written, with what may be done with it. */
export async function readDraft(listo: Listo, viewer: SignedIn, id: string) {
  refuseReaders(viewer);
  const row = await listo.db.tables.articles.findOne({ id });
  const hand = row ? handOf(viewer, row.teamId) : 'none';
  const isReader = await createReader(listo, viewer.id);
  if (!row || (hand === 'none' && !(row.published && isReader(row)))) throw new ProblemError('notFound');
  const {
    published: _,
    publishedVersion: __,
    publishedAt: ___,
    createdAt: ____,
    changedAt: _____,
    ...rest
  } = row;
  const owner = (await readPeople(listo, [row.ownerId])).get(row.ownerId) ?? null;
  const changed = hasChanges(row);
  return {
    ...rest,
    owner,
    hasChanges: changed,
    moves: [
      ...(row.state === 'published' && changed && hand === 'publish' ? (['published'] as const) : []),
      ...listMoves(row.state, hand),
    ],
    mayEdit: hand !== 'none',
    counts: await readCounts(listo, id),
  };
}

export async function listVersions(listo: Listo, viewer: SignedIn, id: string) {
  await readDraft(listo, viewer, id);
  const rows = await listo.db.tables.articleVersions.find(
    { articleId: id },
    { order: [['version', 'DESC']] },
  );
  const people = await readPeople(
    listo,
    rows.map(({ byId }) => byId),
  );
  return rows.map(({ version, at, byId, title, body }) => ({
    ...{ version, at, title, body },
    by: people.get(byId ?? '') ?? null,
  }));
}
