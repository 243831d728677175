import type { Like } from '../../contract/together';
import { rankSimilar, listWords, type Described } from '../../core/similar';
import { readsDesk } from '../../core/rights';
import { isOpen, type TicketState } from '../../core/tickets';
import type { Answers } from '../../core/forms';
import { ProblemError } from '../http/problems';
import { escapeLike } from '../database/like';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';

/** Candidates of the same service, the latest: so many of what is open and so many of what was solved. */
const OF_SERVICE = 200;
/** And so many whose titles have the words that say most, whatever their service. */
const BY_WORDS = 100;
const WORDS_ASKED = 2;
const SHOWN = 6;
/** Words are first looked for among so many latest tickets; only those that are rare there are asked of the index. */
const LATEST = 8_000;
const RARE = 20;
/** The search by words is a help; it must not hold up the page. */
const MOST_SECONDS = 0.04;

type Row = Described & { state: TicketState; requester: string; solution: string | null };

const COLUMNS = `t.number, t.title, t.serviceId, t.place, t.requesterId, t.state, IF(t.state IN ('done', 'closed'), t.solution, NULL) AS solution, p.name AS requester`;

/** Longer words say more; numbers say where. */
function tellingWords(text: string): string[] {
  return [...listWords(text).keys()]
    .filter((word) => word.length > 3)
    .sort((a, b) => b.length - a.length)
    .slice(0, WORDS_ASKED);
}

/**
 * Tickets of any service whose titles have some words. Usual words are found among the latest tickets, where an index
 * of words would list a good part of all there are; rare ones by the index, also long ago.
 */
async function readByWords(
  listo: Listo,
  words: string[],
  { values, fits }: { values: Record<string, unknown>; fits: string },
): Promise<Row[]> {
  if (words.length === 0) return [];
  const { select } = listo.db;
  const from = `SELECT ${COLUMNS} FROM tickets t JOIN people p ON p.id = t.requesterId`;
  const asked = Object.fromEntries(words.map((word, i) => [`word${i}`, `%${escapeLike(word)}%`]));
  const [floor] = await select<{ number: number }>(
    `SELECT number FROM tickets ORDER BY number DESC LIMIT 1 OFFSET ${LATEST}`,
  );
  const latest = await select<Row>(
    `${from} WHERE t.number >= :floor AND ${words.map((_, i) => `t.title LIKE :word${i}`).join(' AND ')} AND ${fits}
     ORDER BY t.number DESC LIMIT :byWords`,
    { ...values, ...asked, floor: floor?.number ?? 0 },
  );
  if (!floor || latest.length >= RARE) return latest;
  const longAgo = await select<Row>(
    `SET STATEMENT max_statement_time = ${MOST_SECONDS} FOR ${from}
     WHERE MATCH (t.title) AGAINST (:query IN BOOLEAN MODE) AND ${fits} LIMIT :byWords`,
    { ...values, query: words.map((word) => `+${word}*`).join(' ') },
  ).catch(() => []);
  return [...latest, ...longAgo];
}

async function readCandidates(
  { listo, viewer }: Viewing,
  { title, serviceId }: Pick<Described, 'title' | 'serviceId'>,
  isOnlyOpen: boolean,
): Promise<Row[]> {
  const visible = visibleTo(viewer);
  const values = { ...visible.values, serviceId, most: OF_SERVICE, byWords: BY_WORDS };
  const part = (where: string, order: string): string =>
    `(SELECT ${COLUMNS} FROM tickets t JOIN people p ON p.id = t.requesterId WHERE t.serviceId = :serviceId AND ${where} AND t.underNumber IS NULL
       AND ${visible.sql} ORDER BY ${order} LIMIT :most)`;
  const open = part("t.resolvedAt IS NULL AND t.state IN ('received', 'inWork', 'held')", 't.number DESC');
  const solved = part('t.resolvedAt IS NOT NULL', 't.resolvedAt DESC');
  const ofService = listo.db.select<Row>(isOnlyOpen ? open : `${open} UNION ALL ${solved}`, values);
  const words = tellingWords(title);
  const fits = `t.underNumber IS NULL AND ${visible.sql} ${isOnlyOpen ? "AND t.state IN ('received', 'inWork', 'held')" : ''}`;
  const rows = (await Promise.all([ofService, readByWords(listo, words, { values, fits })])).flat();
  return [...new Map(rows.map((row) => [row.number, row])).values()];
}

/** The same title again and again says nothing new: the latest of each stands for the others, open ones for themselves. */
function withoutRepeats(rows: Like[]): Like[] {
  const seen = new Set<string>();
  return rows.filter(({ title, state, solution }) => {
    const name = isOpen(state) ? '' : `${title} ${solution ?? ''}`;
    if (name === '' || !seen.has(name)) {
      seen.add(name);
      return true;
    }
    return false;
  });
}

function toLikes(of: Described, candidates: Row[]): Like[] {
  const byNumber = new Map(candidates.map((row) => [row.number, row]));
  const likes = rankSimilar(of, candidates).map((like) => {
    const { title, state, requester, solution } = byNumber.get(like.number)!;
    return { ...like, title, state, requester, solution };
  });
  return withoutRepeats(likes).slice(0, SHOWN);
}

function wordsOf(answers: Answers): string {
  return Object.values(answers)
    .filter((value): value is string => typeof value === 'string')
    .join(' ');
}

/** What is like a ticket, open and solved. */
export async function readSimilar(listo: Listo, viewer: SignedIn, number: number): Promise<Like[]> {
  const { ticket } = await requireTicket({ listo, viewer }, { number, action: 'readNotes' });
  const of = { ...ticket, words: wordsOf(ticket.answers) };
  return toLikes(of, await readCandidates({ listo, viewer }, ticket, false));
}

/** Whether what is being written is reported already, as far as its writer may know. */
export async function readReported(
  listo: Listo,
  viewer: SignedIn,
  { title, serviceId, place }: { title: string; serviceId: string; place: string },
): Promise<Like[]> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const of = { number: 0, title, serviceId, place, requesterId: '' };
  return toLikes(of, await readCandidates({ listo, viewer }, of, true));
}
