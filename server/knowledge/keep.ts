import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import type { ArticleBody } from '../../contract/knowledge';
import { inLanguage, listMoves, type ArticleState, type Hand } from '../../core/knowledge';
import { findBadText } from '../../core/text';
import { isTooNested } from '../../core/words';
import { readsDesk } from '../../core/rights';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { forgetLibrary } from './library';
import type { ArticleRow } from './model';
import { keepPictures } from './keepPictures';
import type { Changing, Viewing, WorkOfViewer } from '../unitOfWork';

/** What someone may do with the articles of a team. */
export function handOf({ isAdministrator, teams }: SignedIn, teamId: string): Hand {
  const own = teams.find((team) => team.teamId === teamId);
  if (isAdministrator || (own && own.role !== 'agent')) return 'publish';
  return own ? 'write' : 'none';
}

export const hasChanges = ({ published, title, body, otherWords }: ArticleRow): boolean =>
  published !== null &&
  JSON.stringify([published.title, published.body, published.otherWords]) !==
    JSON.stringify([title, body, otherWords]);

const problem = (field: string, code: string): ProblemError =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

async function refuse({ listo, tx, viewer }: WorkOfViewer, body: ArticleBody): Promise<void> {
  if (handOf(viewer, body.teamId) === 'none') throw new ProblemError('forbidden');
  if (inLanguage(body.title, 'en').trim() === '') throw problem('title', 'missing');
  for (const field of ['title', 'body', 'otherWords'] as const)
    for (const text of Object.values(body[field]))
      if (findBadText(text) !== null) throw problem(field, 'badCharacter');
  for (const text of Object.values(body.body)) if (isTooNested(text)) throw problem('body', 'tooNested');
  const owner = await listo.db.tables.people.findOne({ id: body.ownerId }, tx);
  if (!owner || owner.leftAt !== null) throw problem('ownerId', 'notAChoice');
}

/** An article that someone may write on. @throws ProblemError */
async function requireHand({ listo, tx, viewer }: WorkOfViewer, id: string): Promise<ArticleRow> {
  const row = await listo.db.tables.articles.findOne({ id }, tx, true);
  if (!row || !readsDesk(viewer)) throw new ProblemError('notFound');
  if (handOf(viewer, row.teamId) === 'none') throw new ProblemError('forbidden');
  return row;
}

function refuseStale(row: ArticleRow, version: number, yours: unknown): void {
  if (row.version !== version)
    throw new ProblemError('stale', {
      differences: [{ field: 'article', theirs: row.title, yours, by: null }],
    });
}

async function changeLibrary<T>(
  listo: Listo,
  actor: Actor,
  work: (tx: Transaction) => Promise<T>,
): Promise<T> {
  const answer = await change(listo, actor, work);
  forgetLibrary(listo);
  return answer;
}

export function createArticle(
  { listo, viewer, actor }: Changing,
  body: ArticleBody,
): Promise<{ id: string }> {
  return changeLibrary(listo, actor, async (tx) => {
    await refuse({ listo, tx, viewer }, body);
    const id = nanoid(12);
    const now = listo.clock.now();
    await listo.db.tables.articles.insert(
      {
        ...body,
        ...{ id, state: 'draft', published: null, version: 1, publishedVersion: 0, publishedAt: null },
        ...{ createdAt: now, changedAt: now },
      },
      tx,
    );
    await keepPictures({ listo, tx }, viewer.id, { articleId: id, body: body.body });
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'articleBegun', data: { articleId: id } });
    return { id };
  });
}

export function updateArticle(
  { listo, viewer }: Viewing,
  { actor, id }: { actor: Actor; id: string },
  { version, ...body }: ArticleBody & { version: number },
): Promise<{ version: number }> {
  return changeLibrary(listo, actor, async (tx) => {
    const row = await requireHand({ listo, tx, viewer }, id);
    refuseStale(row, version, body.title);
    await refuse({ listo, tx, viewer }, body);
    await listo.db.tables.articles.update(
      { id },
      { ...body, version: version + 1, changedAt: listo.clock.now() },
      tx,
    );
    await keepPictures({ listo, tx }, viewer.id, { articleId: id, body: body.body });
    return { version: version + 1 };
  });
}

/** What a move does besides: publishing keeps the words as a version, retiring takes them from readers. */
async function effectOf(
  { listo, tx, viewer }: WorkOfViewer,
  { row, to }: { row: ArticleRow; to: ArticleState },
): Promise<Partial<ArticleRow>> {
  if (to === 'retired') return { published: null };
  if (to !== 'published') return {};
  const { id, title, body, otherWords } = row;
  const [at, version] = [listo.clock.now(), row.publishedVersion + 1];
  await listo.db.tables.articleVersions.insert(
    { articleId: id, version, at, byId: viewer.id, title, body },
    tx,
  );
  return { published: { title, body, otherWords }, publishedVersion: version, publishedAt: at };
}

export function moveArticle(
  { listo, viewer }: Viewing,
  { actor, id }: { actor: Actor; id: string },
  { to, version }: { to: ArticleState; version: number },
): Promise<{ version: number }> {
  return changeLibrary(listo, actor, async (tx) => {
    const row = await requireHand({ listo, tx, viewer }, id);
    refuseStale(row, version, to);
    const moves = listMoves(row.state, handOf(viewer, row.teamId));
    // What was published and changed since is published anew from where it stands.
    const isAnew =
      to === 'published' && row.state === 'published' && handOf(viewer, row.teamId) === 'publish';
    if (!moves.includes(to) && !isAnew) throw new ProblemError('forbidden');
    if (to !== 'draft' && inLanguage(row.body, 'en').trim() === '') throw problem('body', 'missing');
    const effect = await effectOf({ listo, tx, viewer }, { row, to });
    await listo.db.tables.articles.update(
      { id },
      { ...effect, state: to, version: version + 1, changedAt: listo.clock.now() },
      tx,
    );
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'articleMoved',
        data: { articleId: id, from: row.state, to },
      },
    );
    return { version: version + 1 };
  });
}
