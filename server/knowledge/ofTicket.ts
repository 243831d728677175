import { inLanguage, withoutPersons } from '../../core/knowledge';
import { toPlain } from '../../core/words';
import { findService } from '../catalogue/services';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { writeWithin } from '../tickets/messages';
import type { TicketRecord } from '../tickets/model';
import { createReader, findIn } from './find';
import { readLibrary } from './library';
import type { Viewing } from '../unitOfWork';

/** So much of what was said tells what it is about. */
const MOST_LETTERS = 1_500;
/** Many words meet something everywhere: only what meets nearly as much as the best is shown. */
const WORTH_SHOWING = 0.5;

/** What a ticket is about: its heading, what was answered in its form, and the requester's own words. */
async function wordsOf(
  { db }: Listo,
  { number, title, answers, requesterId }: TicketRecord,
): Promise<string> {
  const said = Object.values(answers).filter((value): value is string => typeof value === 'string');
  const messages = await db.select<{ text: string }>(
    `SELECT text FROM messages WHERE ticketNumber = :number AND authorId = :requesterId AND readBy = 'requester'
     ORDER BY at LIMIT 3`,
    { number, requesterId },
  );
  return [title, ...said, ...messages.map(({ text }) => text)].join('. ').slice(0, MOST_LETTERS);
}

/** What fits a ticket, that its requester may read as well as the agent. */
export async function findForTicket({ listo, viewer }: Viewing, number: number, q: string) {
  const { ticket } = await requireTicket({ listo, viewer }, { number, action: 'note' });
  const library = await readLibrary(listo);
  const isReader = await createReader(listo, viewer.id);
  const articles = await findIn(listo, library, {
    q: q.trim() === '' ? await wordsOf(listo, ticket) : q,
    language: viewer.language,
    ...{ accept: isReader, most: 4, worth: WORTH_SHOWING },
  });
  const uses = await listo.db.tables.articleUses.find({ ticketNumber: number, what: 'shared' });
  const nothing = await listo.db.tables.questions.find({ ticketNumber: number });
  const isTheirs = await createReader(listo, ticket.requesterId);
  return {
    articles,
    shareableIds: articles.map(({ id }) => id).filter((id) => isTheirs(library.articles.get(id)!)),
    sharedIds: [...new Set(uses.map(({ articleId }) => articleId))],
    isNothing: nothing.length > 0,
  };
}

/** An article as it is sent on a ticket: that it helped there is told from the address. */
const addressIn = (articleId: string, number: number): string =>
  `/ask/articles/${articleId}?ticket=${number}`;

const isSharing = (text: string, number: number): boolean =>
  text.includes('](/ask/articles/') && text.includes(`?ticket=${number})`);

type Shared = { number: number; articleId: string };

/** What an article is sent with, in the requester's language. @throws ProblemError where they may not read it */
async function wordsOfSharing(
  { listo, viewer }: Viewing,
  { number, articleId }: Shared,
  requesterId: string,
): Promise<string> {
  const article = (await readLibrary(listo)).articles.get(articleId);
  const isReader = await createReader(listo, viewer.id);
  if (!article || !isReader(article)) throw new ProblemError('notFound');
  const isTheirs = await createReader(listo, requesterId);
  if (!isTheirs(article)) throw new ProblemError('notForRequester');
  const { language } = (await listo.db.tables.people.findOne({ id: requesterId }))!;
  const title = inLanguage(article.words.title, language);
  const address = addressIn(articleId, number);
  return language === 'pt'
    ? `Isto costuma resolver: [${title}](${address})\n\nDiga-nos no fim do artigo se era isso.`
    : `This usually helps: [${title}](${address})\n\nPlease say at its end whether that was it.`;
}

/** The answer with which an article would be sent, for the agent to edit first. */
export async function readSharing(listo: Listo, viewer: SignedIn, shared: Shared): Promise<{ text: string }> {
  const { ticket } = await requireTicket({ listo, viewer }, { number: shared.number, action: 'answer' });
  return { text: await wordsOfSharing({ listo, viewer }, shared, ticket.requesterId) };
}

/** Sends an article as an answer, with the way to it, in the agent's own words where they gave some; counted as shared. */
export async function shareArticle(
  listo: Listo,
  { viewer, actor }: { viewer: SignedIn; actor: Actor },
  { text: own, ...shared }: Shared & { text?: string | undefined },
): Promise<{ messageId: string }> {
  const { number, articleId } = shared;
  return change(listo, actor, async (tx) => {
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'answer' });
    const usual = await wordsOfSharing({ listo, viewer }, shared, ticket.requesterId);
    const sent = await writeWithin({ listo, tx, viewer }, number, {
      ...{ text: own ?? usual, format: 'rich', readBy: 'requester', links: [], fileIds: [] },
    });
    await listo.db.tables.articleUses.insert(
      {
        ...{ articleId, personId: viewer.id, at: listo.clock.now(), what: 'shared', door: 'desk' },
        ticketNumber: number,
      },
      tx,
    );
    return sent;
  });
}

/** Says that nothing is written on a ticket's matter, for those who look what is worth writing. */
export function sayNothing(
  listo: Listo,
  { viewer, actor }: { viewer: SignedIn; actor: Actor },
  { number, isNothing }: { number: number; isNothing: boolean },
): Promise<{ ok: true }> {
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'note' });
    await tables.questions.remove({ ticketNumber: number }, tx);
    if (isNothing)
      await tables.questions.insert(
        {
          ...{ personId: viewer.id, at: listo.clock.now(), language: viewer.language, door: 'desk' },
          ...{ words: ticket.title.slice(0, 500), serviceId: ticket.serviceId, found: 0 },
          ticketNumber: number,
        },
        tx,
      );
    return OK;
  });
}

/** An article begun from how a ticket was solved: what it looks like, what to do; who it was is left out. */
export async function draftFromTicket(listo: Listo, viewer: SignedIn, number: number) {
  const { ticket } = await requireTicket({ listo, viewer }, { number, action: 'note' });
  const messages = await listo.db.select<{ text: string; isByTeam: number; authorId: string }>(
    `SELECT text, isByTeam, authorId FROM messages WHERE ticketNumber = :number AND readBy = 'requester' ORDER BY at`,
    { number },
  );
  const people = await listo.db.select<{ name: string }>('SELECT name FROM people WHERE id IN (:ids)', {
    ids: [ticket.requesterId, ticket.assigneeId ?? '', ...messages.map(({ authorId }) => authorId)],
  });
  const names = people.map(({ name }) => name);
  const clean = (text: string): string => withoutPersons(toPlain(text), names).trim();
  const said = Object.values(ticket.answers).filter(
    (value): value is string => typeof value === 'string' && value.length > 20,
  );
  const theirs = messages.filter(({ isByTeam }) => !isByTeam).map(({ text }) => text);
  // What is written already is not written once more.
  const ours = messages.flatMap(({ isByTeam, text }) => (isByTeam && !isSharing(text, number) ? [text] : []));
  const part = (heading: string, lines: string[], list = ''): string =>
    lines.length === 0
      ? ''
      : `## ${heading}\n\n${lines.map((line) => `${list}${clean(line)}`).join('\n\n')}\n\n`;
  const solved = ticket.solution ? [ticket.solution] : [];
  const isPt = viewer.language === 'pt';
  const body = [
    part(isPt ? 'O que acontece' : 'What happens', [...said, ...theirs]),
    part(isPt ? 'O que fazer' : 'What to do', [...solved, ...ours]),
  ].join('');
  const rules = await findService(listo, ticket.serviceId);
  const only = (text: string) => ({ en: isPt ? '' : text, pt: isPt ? text : '' });
  return {
    title: only(clean(ticket.title)),
    body: only(body.trim()),
    teamId: ticket.teamId,
    place: rules?.service.place ?? ('desk' as const),
    labels: [ticket.serviceId],
  };
}
