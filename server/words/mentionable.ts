import type { Mentionable } from '../../contract/words';
import { createRights, may } from '../../core/rights';
import { foldText } from '../../core/text';
import { escapeLike } from '../database/like';
import { requireTicket } from '../tickets/guard';
import { everyoneOn, keepReaders, type ReadBy } from '../tickets/mentioned';
import type { Viewing } from '../unitOfWork';

const MOST = 8;
const LOOKED_AT = 24;

/** Whether a name, or one of its words, begins so. @example hasWordFrom('Service desk', 'desk') // true */
function hasWordFrom(name: string, wanted: string): boolean {
  return ` ${foldText(name)}`.includes(` ${wanted}`);
}

/** Who can be called on a ticket by a few letters: those on it first, then agents and teams; only who may read it. */
export async function listMentionable(
  { listo, viewer }: Viewing,
  number: number,
  { q, readBy }: { q: string; readBy: ReadBy },
): Promise<Mentionable[]> {
  const { select } = listo.db;
  const found = await requireTicket({ listo, viewer }, { number, action: 'read' });
  const isTeamSide = may(createRights(viewer), 'readNotes', found.guarded);
  const near = everyoneOn(found, readBy);
  const people = await select<{ id: string; name: string; title: string }>(
    `SELECT p.id, p.name, p.title FROM people p WHERE p.leftAt IS NULL AND p.id <> :self
       AND (p.name LIKE :starts OR p.name LIKE :within)
       AND (p.id IN (:near) ${isTeamSide ? 'OR EXISTS (SELECT 1 FROM team_members m WHERE m.personId = p.id)' : ''})
     ORDER BY p.id IN (:near) DESC,
       EXISTS (SELECT 1 FROM team_members m WHERE m.personId = p.id AND m.teamId = :teamId) DESC, p.name LIMIT :limit`,
    {
      ...{ self: viewer.id, near: [...near, ''], teamId: found.ticket.teamId, limit: LOOKED_AT },
      ...{ starts: `${escapeLike(q)}%`, within: `% ${escapeLike(q)}%` },
    },
  );
  const readers = new Set(await keepReaders(listo, found, { readBy, personIds: people.map(({ id }) => id) }));
  const wanted = foldText(q);
  const teams = isTeamSide ? await listo.db.tables.teams.find({}) : [];
  const others = near.filter((id) => id !== viewer.id).length;
  return [
    ...(others > 1 && wanted === '' ? [{ kind: 'everyone' as const, count: others }] : []),
    ...people
      .filter(({ id }) => readers.has(id))
      .slice(0, MOST)
      .map((person) => ({ kind: 'person' as const, ...person })),
    ...teams
      .filter(({ name }) => wanted !== '' && Object.values(name).some((each) => hasWordFrom(each, wanted)))
      .slice(0, 2)
      .map(({ id, name }) => ({ kind: 'team' as const, id, name })),
  ];
}
