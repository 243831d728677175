import type { api } from '../../contract';
import type { AnswerOf, QueryOf } from '../../contract/endpoint';
import { areAlike } from '../../core/people';
import { toWayIn } from '../../core/signOn';
import type { LocalText } from '../../core/forms';
import { toAddress } from '../../core/identity';
import { escapeLike } from '../database/like';
import { fromCursor, toCursor } from '../http/byName';
import type { Listo } from '../listo';

type Page = AnswerOf<typeof api.organisation.people>;
type Listed = Page['rows'][number];
type Row = Omit<Listed, 'goesFirst' | 'isAway' | 'isAdministrator' | 'teams' | 'wayIn'> & {
  goesFirst: number;
  isAway: number;
  isAdministrator: number;
  hasPassword: number;
  hasProvider: number;
  isInvited: number;
};

const PAGE = 50;
/** So many of like names are looked through. */
const MOST_LOOKED_AT = 200;
const MOST_ALIKE = 5;

const SELECT = `SELECT p.id, p.name, p.goesFirst, p.title, p.department, s.name AS site, p.email, p.leftAt, p.isAdministrator,
    EXISTS (SELECT 1 FROM absences b WHERE b.personId = p.id AND b.fromAt <= :now AND b.toAt > :now) AS isAway,
    p.passwordHash IS NOT NULL AS hasPassword,
    EXISTS (SELECT 1 FROM sign_on_subjects o WHERE o.personId = p.id) AS hasProvider,
    EXISTS (SELECT 1 FROM invitations i WHERE i.personId = p.id AND i.usedAt IS NULL AND i.replacedAt IS NULL AND i.endsAt > :now) AS isInvited
  FROM people p JOIN sites s ON s.id = p.siteId`;

const STATES = {
  here: 'p.leftAt IS NULL',
  away: `p.leftAt IS NULL AND EXISTS (SELECT 1 FROM absences b WHERE b.personId = p.id AND b.fromAt <= :now AND b.toAt > :now)`,
  left: 'p.leftAt IS NOT NULL',
};
const ROLES = {
  agent: 'EXISTS (SELECT 1 FROM team_members m WHERE m.personId = p.id)',
  administrator: 'p.isAdministrator',
  employee: 'NOT EXISTS (SELECT 1 FROM team_members m WHERE m.personId = p.id)',
};

async function toListed({ db: { select } }: Listo, rows: Row[]): Promise<Listed[]> {
  if (rows.length === 0) return [];
  const members = await select<{ personId: string; name: LocalText | string }>(
    'SELECT m.personId, t.name FROM team_members m JOIN teams t ON t.id = m.teamId WHERE m.personId IN (:ids) ORDER BY t.id',
    { ids: rows.map(({ id }) => id) },
  );
  const nameOf = (name: LocalText | string): LocalText =>
    typeof name === 'string' ? (JSON.parse(name) as LocalText) : name;
  return rows.map(({ hasPassword, hasProvider, isInvited, ...row }) => ({
    ...row,
    goesFirst: Boolean(row.goesFirst),
    isAway: Boolean(row.isAway),
    isAdministrator: Boolean(row.isAdministrator),
    teams: members.filter(({ personId }) => personId === row.id).map(({ name }) => nameOf(name)),
    wayIn: toWayIn({
      hasPassword: Boolean(hasPassword),
      hasProvider: Boolean(hasProvider),
      isInvited: Boolean(isInvited),
    }),
  }));
}

/** The people of the organisation by name, a page at a time. */
export async function listPeople(
  listo: Listo,
  { q, siteId, teamId, state, role, after }: QueryOf<typeof api.organisation.people>,
): Promise<Page> {
  const conditions = [STATES[state]];
  if (q.trim())
    conditions.push(
      '(p.name LIKE :pattern OR p.email LIKE :pattern OR p.department LIKE :pattern OR p.title LIKE :pattern)',
    );
  if (siteId) conditions.push('p.siteId = :siteId');
  if (teamId)
    conditions.push('EXISTS (SELECT 1 FROM team_members m WHERE m.personId = p.id AND m.teamId = :teamId)');
  if (role) conditions.push(ROLES[role]);
  const from = after === undefined ? null : fromCursor(after);
  if (from) conditions.push('(p.name > :name OR (p.name = :name AND p.id > :id))');
  const rows = await listo.db.select<Row>(
    `${SELECT} WHERE ${conditions.join(' AND ')} ORDER BY p.name, p.id LIMIT :limit`,
    {
      ...{ pattern: `%${escapeLike(q.trim())}%`, siteId, teamId, now: listo.clock.now(), limit: PAGE + 1 },
      ...from,
    },
  );
  const page = rows.slice(0, PAGE);
  return {
    rows: await toListed(listo, page),
    after: rows.length > PAGE ? toCursor(page.at(-1)!) : null,
  };
}

/** People who may be the same as one of this name or address, those who have left among them. */
export async function listAlike(
  listo: Listo,
  { name, email }: { name: string; email: string },
): Promise<Listed[]> {
  const address = toAddress(email);
  const longest = name
    .split(/\s+/)
    .sort((a, b) => b.length - a.length)
    .slice(0, 2)
    .filter((part) => part.length > 2);
  const patterns = longest.map((part) => `%${escapeLike(part.slice(0, 4))}%`);
  if (address === null && patterns.length === 0) return [];
  const rows = await listo.db.select<Row>(
    `${SELECT} WHERE p.email = :address ${patterns.map((_, i) => `OR p.name LIKE :pattern${i}`).join(' ')}
     ORDER BY p.name, p.id LIMIT :limit`,
    {
      ...{ address: address ?? '', now: listo.clock.now(), limit: MOST_LOOKED_AT },
      ...Object.fromEntries(patterns.map((pattern, i) => [`pattern${i}`, pattern])),
    },
  );
  const alike = rows.filter((row) => row.email === address || areAlike(row.name, name));
  return toListed(listo, alike.slice(0, MOST_ALIKE));
}
