import { setTimeout } from 'node:timers/promises';
import { readsDesk, type Viewer } from '../../core/rights';
import { escapeLike } from '../database/like';
import type { Listo } from '../listo';
import { completeRows, ROW_JOINS, ROW_SELECT, type RowRecord } from './rows';
import { visibleTo } from '../tickets/visibility';

const MINE_PAGE = 50;

/** What someone asked for or follows, the newest first. */
export async function readMine(
  listo: Listo,
  viewer: Viewer,
  { which, before }: { which: 'open' | 'past'; before: number | undefined },
) {
  const states = which === 'open' ? ['received', 'inWork', 'held', 'done'] : ['closed', 'withdrawn'];
  // Of each state the newest are a stretch of an index, however many somebody asked for over the years.
  const own = states.map(
    (_, i) => `(SELECT number FROM tickets WHERE requesterId = :id AND state = :state${i} AND number < :before
       ORDER BY number DESC LIMIT :limit)`,
  );
  const records = await listo.db.select<RowRecord>(
    `${ROW_SELECT} FROM (${own.join(' UNION ')} UNION
       SELECT ticketNumber FROM followers WHERE personId = :id AND role = 'alsoTold' AND ticketNumber < :before) k
     STRAIGHT_JOIN tickets t ON t.number = k.number ${ROW_JOINS}
     WHERE t.state IN (:states) ORDER BY t.number DESC LIMIT :limit`,
    {
      ...Object.fromEntries(states.map((state, i) => [`state${i}`, state])),
      ...{ id: viewer.id, states, before: before ?? Number.MAX_SAFE_INTEGER, limit: MINE_PAGE + 1 },
    },
  );
  const shown = records.slice(0, MINE_PAGE);
  return {
    rows: await completeRows(listo, shown),
    next: records.length > MINE_PAGE ? shown.at(-1)!.number : null,
  };
}

type FoundTicket = { number: number; title: string; requester: string };
type Visible = ReturnType<typeof visibleTo>;

/** Titles are looked through this far back; beyond, the index of words is asked, for so long at most. */
const LATEST = 8_000;
const INDEX_MS = 30;
const SHOWN = 6;

/** Tickets first: from the people's side, all that anyone ever asked for would be read. */
const FIND =
  'SELECT STRAIGHT_JOIN t.number, t.title, p.name AS requester FROM tickets t JOIN people p ON p.id = t.requesterId';

function findByNumber(listo: Listo, { sql, values }: Visible, number: number): Promise<FoundTicket[]> {
  return listo.db.select<FoundTicket>(`${FIND} WHERE t.number = :number AND ${sql}`, { ...values, number });
}

/**
 * Tickets whose titles have words that begin so, the latest first. Many have the usual words: those are found among the
 * latest; rare ones by the index, also long ago.
 */
async function findByWords(listo: Listo, { sql, values }: Visible, q: string): Promise<FoundTicket[]> {
  const words = q
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .slice(0, 6);
  if (words.length === 0) return [];
  const asked = Object.fromEntries(
    words.flatMap((word, i) => [
      [`first${i}`, `${word}%`],
      [`later${i}`, `% ${word}%`],
    ]),
  );
  const fits = words.map((_, i) => `(t.title LIKE :first${i} OR t.title LIKE :later${i})`).join(' AND ');
  const inLatest = async (): Promise<FoundTicket[]> => {
    const [edge] = await listo.db.select<{ number: number }>(
      `SELECT number FROM tickets ORDER BY number DESC LIMIT 1 OFFSET ${LATEST}`,
    );
    // A number said outright: by one that has yet to be found, every ticket is looked at where nothing fits.
    return listo.db.select<FoundTicket>(
      `${FIND} WHERE t.number >= :from AND ${fits} AND ${sql} ORDER BY t.number DESC LIMIT ${SHOWN}`,
      { ...values, ...asked, from: edge?.number ?? 0 },
    );
  };
  const byIndex = (): Promise<FoundTicket[]> =>
    listo.db
      .select<FoundTicket>(
        `SET STATEMENT max_statement_time = ${INDEX_MS / 1000} FOR ${FIND}
         WHERE MATCH (t.title) AGAINST (:query IN BOOLEAN MODE) AND ${sql} LIMIT ${SHOWN * 4}`,
        { ...values, query: words.map((word) => `+${word}*`).join(' ') },
      )
      .catch(() => []);
  const latest = await inLatest();
  if (latest.length === SHOWN) return latest;
  // The index goes on for a while after its time is up; nobody waits for that.
  const older = await Promise.race([byIndex(), setTimeout(INDEX_MS, [])]);
  const known = new Set(latest.map(({ number }) => number));
  const rest = older.filter(({ number }) => !known.has(number)).sort((a, b) => b.number - a.number);
  return [...latest, ...rest].slice(0, SHOWN);
}

/** Tickets and people that fit some words; a number finds its ticket. */
export async function find(listo: Listo, viewer: Viewer, q: string) {
  const { select } = listo.db;
  const words = q.trim();
  if (words === '') return { tickets: [], people: [] };
  const visible = visibleTo(viewer);
  const number = /^\d+$/.test(words) ? Number(words) : null;
  const tickets = number === null ? findByWords(listo, visible, words) : findByNumber(listo, visible, number);
  const people = readsDesk(viewer)
    ? select<{ id: string; name: string; goesFirst: number; title: string }>(
        'SELECT id, name, goesFirst, title FROM people WHERE name LIKE :pattern AND leftAt IS NULL ORDER BY name LIMIT 5',
        { pattern: `%${escapeLike(words)}%` },
      )
    : Promise.resolve([]);
  const [foundTickets, foundPeople] = await Promise.all([tickets, people]);
  return {
    tickets: foundTickets,
    people: foundPeople.map((person) => ({ ...person, goesFirst: Boolean(person.goesFirst) })),
  };
}
