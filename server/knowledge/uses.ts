import type { BodyOf } from '../../contract/endpoint';
import type { api } from '../../contract';
import type { Language } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { writeWithin } from '../tickets/messages';
import { createReader } from './find';
import { readLibrary, type Published } from './library';
import type { Changing, UnitOfWork } from '../unitOfWork';

type Knowledge = typeof api.knowledge;

/** A person's later word on an article takes the place of one said within this time. */
const SAME_MATTER_MS = 86_400_000;
/** What is typed on belongs to the same question. */
const SAME_QUESTION_MS = 60_000;

const SAYS: Record<Language, { wasIt(title: string): string; wasNot(title: string, words: string): string }> =
  {
    en: {
      wasIt: (title) => `That was it: “${title}”.`,
      wasNot: (title, words) => `“${title}” was not it: ${words}`,
    },
    pt: {
      wasIt: (title) => `Era isso: “${title}”.`,
      wasNot: (title, words) => `“${title}” não era isso: ${words}`,
    },
  };

/** A published article that someone may read. @throws ProblemError notFound */
export async function requireReadable(listo: Listo, personId: string, id: string): Promise<Published> {
  const article = (await readLibrary(listo)).articles.get(id);
  const isReader = await createReader(listo, personId);
  if (!article || !isReader(article)) throw new ProblemError('notFound');
  return article;
}

/** Keeps what was asked; of words that were typed on, only the last. */
export function keepQuestion(
  { listo, viewer: { id: personId, language }, actor }: Changing,
  { words, door, serviceId, articleIds }: BodyOf<Knowledge['asked']>,
): Promise<{ ok: true }> {
  const { tables, select } = listo.db;
  const at = listo.clock.now();
  return change(listo, actor, async (tx) => {
    const [last] = await select<{ id: number; words: string }>(
      `SELECT id, words FROM questions_asked WHERE personId = :personId AND door = :door AND at > :since
       AND ticketNumber IS NULL ORDER BY at DESC LIMIT 1`,
      { personId, door, since: at - SAME_QUESTION_MS },
      tx,
    );
    const question = { personId, at, language, words, door, serviceId, found: articleIds.length };
    const isSame = last && (words.startsWith(last.words) || last.words.startsWith(words));
    if (isSame) await tables.questions.update({ id: last.id }, question, tx);
    else await tables.questions.insert(question, tx);
    const uses = articleIds.map((articleId) => ({ articleId, personId, at, door, what: 'shown' as const }));
    await tables.articleUses.insertAll(isSame ? [] : uses, tx);
    return OK;
  });
}

export async function keepOpened(
  { listo, viewer, actor }: Changing,
  { articleId, door, number }: { articleId: string } & BodyOf<Knowledge['opened']>,
): Promise<{ ok: true }> {
  await requireReadable(listo, viewer.id, articleId);
  if (number !== null) await requireTicket({ listo, viewer }, { number, action: 'read' });
  const { id: personId } = viewer;
  return change(listo, actor, async (tx) => {
    const use = { articleId, personId, door, at: listo.clock.now(), ticketNumber: number };
    await listo.db.tables.articleUses.insert({ ...use, what: 'opened' }, tx);
    return OK;
  });
}

/** Of what someone says of an article within a day, the later word stands. */
export async function forgetEarlierWord(
  { listo: { db, clock }, tx }: UnitOfWork,
  by: { personId: string; articleId: string },
): Promise<void> {
  await db.run(
    `DELETE FROM article_uses WHERE personId = :personId AND articleId = :articleId AND at > :since
     AND what IN ('helped', 'notHelped')`,
    { ...by, since: clock.now() - SAME_MATTER_MS },
    tx,
  );
}

type Word = { number: number; article: Published; helped: boolean; words: string };

/** What the requester says of an article that they were sent stands on the ticket, for whoever sent it. */
async function tellTeam(
  { listo, tx }: UnitOfWork,
  viewer: SignedIn,
  { number, article, helped, words }: Word,
): Promise<void> {
  const { tables } = listo.db;
  const ticket = await tables.tickets.findOne({ number }, tx, true);
  const sent = { ticketNumber: number, articleId: article.id, what: 'shared' } as const;
  if (ticket?.requesterId !== viewer.id || !(await tables.articleUses.findOne(sent, tx))) return;
  const title = inLanguage(article.words.title, viewer.language);
  const says = SAYS[viewer.language];
  const text = helped ? says.wasIt(title) : says.wasNot(title, words.trim());
  await writeWithin({ listo, tx, viewer }, number, { text, readBy: 'requester', links: [], fileIds: [] });
}

/** Whether it was it. Said again within a day, the later word stands. */
export async function keepJudgement(
  { listo, viewer, actor }: Changing,
  { articleId, helped, number, ...said }: { articleId: string } & BodyOf<Knowledge['judge']>,
): Promise<{ ok: true }> {
  const { id: personId } = viewer;
  const article = await requireReadable(listo, personId, articleId);
  if (number !== null) await requireTicket({ listo, viewer }, { number, action: 'read' });
  const at = listo.clock.now();
  return change(listo, actor, async (tx) => {
    await forgetEarlierWord({ listo, tx }, { personId, articleId });
    const what = helped ? 'helped' : 'notHelped';
    await listo.db.tables.articleUses.insert(
      { articleId, personId, at, what, ticketNumber: number, ...said, isInstead: said.isInstead && helped },
      tx,
    );
    if (number !== null && (helped || said.words.trim() !== ''))
      await tellTeam({ listo, tx }, viewer, { number, article, helped, words: said.words });
    return OK;
  });
}
