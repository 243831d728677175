import type { Viewer } from '../../core/rights';
import { isAgent } from '../../core/rights';
import type { Listo } from '../listo';
import { completeRows, ROW_JOINS, ROW_SELECT, type RowRecord } from './rows';
import { visibleTo } from './visibility';

const MINE_PAGE = 50;

/** What someone asked for or follows, the newest first. */
export async function readMine(listo: Listo, viewer: Viewer, which: 'open' | 'past', before?: number) {
  const states = which === 'open' ? ['received', 'inWork', 'held', 'done'] : ['closed', 'withdrawn'];
  const records = await listo.db.select<RowRecord>(
    `${ROW_SELECT} FROM tickets t ${ROW_JOINS}
     WHERE t.number IN (
       SELECT number FROM tickets WHERE requesterId = :id AND state IN (:states)
       UNION SELECT ticketNumber FROM followers WHERE personId = :id AND role = 'alsoTold')
     AND t.state IN (:states) AND t.number < :before ORDER BY t.number DESC LIMIT :limit`,
    { id: viewer.id, states, before: before ?? Number.MAX_SAFE_INTEGER, limit: MINE_PAGE + 1 },
  );
  const shown = records.slice(0, MINE_PAGE);
  return {
    rows: await completeRows(listo, shown),
    next: records.length > MINE_PAGE ? shown.at(-1)!.number : null,
  };
}

/** Tickets and people that fit some words; a number finds its ticket. */
export async function find(listo: Listo, viewer: Viewer, q: string) {
  const { select } = listo.db;
  const words = q.trim();
  if (words === '') return { tickets: [], people: [] };
  const visible = visibleTo(viewer);
  const number = /^\d+$/.test(words) ? Number(words) : null;
  const tickets = await select<{ number: number; title: string; requester: string }>(
    `SELECT t.number, t.title, p.name AS requester FROM tickets t JOIN people p ON p.id = t.requesterId
     WHERE ${number === null ? 'MATCH (t.title) AGAINST (:query IN BOOLEAN MODE)' : 't.number = :number'} AND ${visible.sql}
     ORDER BY t.number DESC LIMIT 6`,
    {
      ...visible.values,
      number,
      query: words
        .split(/[^\p{L}\p{N}]+/u)
        .filter(Boolean)
        .map((word) => `+${word}*`)
        .join(' '),
    },
  );
  const people = isAgent(viewer)
    ? await select<{ id: string; name: string; goesFirst: number; title: string }>(
        'SELECT id, name, goesFirst, title FROM people WHERE name LIKE :pattern AND leftAt IS NULL ORDER BY name LIMIT 5',
        { pattern: `%${words.replace(/[%_\\]/g, '\\$&')}%` },
      )
    : [];
  return { tickets, people: people.map((person) => ({ ...person, goesFirst: Boolean(person.goesFirst) })) };
}
