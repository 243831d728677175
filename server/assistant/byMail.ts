import { understandMessage } from '../../core/assistant';
import { withoutCourtesies } from '../../core/text';
import { composeText } from '../../core/words';
import { ProblemError } from '../http/problems';
import { findArticles } from '../knowledge/find';
import { readArticle } from '../knowledge/read';
import { forgetEarlierWord } from '../knowledge/uses';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { readLearned } from './learned';
import type { UnitOfWork } from '../unitOfWork';

const READ = 2_000;
const PASSAGE = 900;
const PASSAGES = 2;

export type MailAnswer = { articleId: string; title: string; text: string };

async function readWhole(listo: Listo, viewer: SignedIn, articleId: string): Promise<MailAnswer[]> {
  try {
    const { title, body } = await readArticle(listo, viewer, { id: articleId });
    return [{ articleId, title, text: composeText(body, listo.address).slice(0, PASSAGE) }];
  } catch (error) {
    // It was retired, or is not for this person.
    if (error instanceof ProblemError && error.problem === 'notFound') return [];
    throw error;
  }
}

/**
 * What may answer a mail at once: the article of the matter that its subject or its text is surely about; where it may
 * be about several, the passages that fit best; where neither is understood, nothing. Always quoted from what this
 * person may read.
 */
export async function findMailAnswers(
  listo: Listo,
  viewer: SignedIn,
  { subject, text }: { subject: string; text: string },
): Promise<MailAnswer[]> {
  const { understanding, matters, sum } = await readLearned(listo, 'employees');
  const parts = [subject, text.slice(0, READ)].filter((part) => part.trim() !== '');
  const offers = parts
    .map((text) => understandMessage(understanding, { text, language: viewer.language, sum }).offer)
    // Nobody is written to on a guess.
    .filter(({ kind }) => kind !== 'reword' && kind !== 'unclear');
  if (offers.length === 0) return [];
  const sure = new Set(offers.flatMap(({ kind, ids }) => (kind === 'confirm' ? ids : [])));
  const steps = matters.find(({ id }) => sure.size === 1 && sure.has(id))?.steps ?? [];
  const step = steps.find(({ kind }) => kind === 'article');
  if (step?.kind === 'article') return readWhole(listo, viewer, step.articleId);
  const q = withoutCourtesies(parts.join('\n')).slice(0, READ);
  const found = (await findArticles(listo, viewer, { q })).slice(0, PASSAGES);
  return found.map(({ id, title, passage }) => ({
    articleId: id,
    title,
    text: passage
      .map((part) => part.text)
      .join('')
      .slice(0, PASSAGE),
  }));
}

/** Counts the articles that were sent by mail. */
export async function keepSent(
  { listo: { db, clock }, tx }: UnitOfWork,
  { personId, ticketNumber }: { personId: string; ticketNumber: number },
  answers: MailAnswer[],
): Promise<void> {
  await db.tables.articleUses.insertAll(
    answers.map(({ articleId }) => ({
      ...{ articleId, personId, ticketNumber, at: clock.now(), door: 'assistant', what: 'shown' },
      ...{ isInstead: false, words: '' },
    })),
    tx,
  );
}

/** The one article that was sent for this ticket was it: it spared the work. */
export async function keepWasIt(
  { listo, tx }: UnitOfWork,
  { personId, ticketNumber }: { personId: string; ticketNumber: number },
): Promise<void> {
  const { tables } = listo.db;
  const sent = await tables.articleUses.find({ ticketNumber, personId, what: 'shown' }, { transaction: tx });
  const [only] = sent;
  if (!only || sent.length > 1) return;
  await forgetEarlierWord({ listo, tx }, { personId, articleId: only.articleId });
  await tables.articleUses.insert(
    {
      ...{ articleId: only.articleId, personId, at: listo.clock.now(), door: 'assistant', what: 'helped' },
      ...{ isInstead: true, words: '', ticketNumber: null },
    },
    tx,
  );
}
