import type { Language } from '../../core/forms';
import { listClosedTeams, type KeptWork, type TeamRole, type Viewer } from '../../core/rights';
import { needsFactor } from '../../core/signOn';
import type { Database } from '../database/database';
import type { Listo } from '../listo';
import { SIGN_ON_SETTING, toSignOn } from './access';
import type { SessionWay } from './model';
import { hashToken } from './token';

/** Who acts: a person by a session, or another program by a key. */
export type SignedIn = Viewer & {
  sessionId: string;
  name: string;
  siteId: string;
  language: Language;
  /** They have signed in by a password alone, and a second factor is asked of them: they do nothing else before. */
  mustSetFactor?: true;
  /** The key of a program, with its limits; a person has none. `endsAt`: ms since 1970. */
  byKey?: { id: string; mayChange: boolean; perMinute: number; endsAt: number | null };
};

type Row = {
  personId: string;
  name: string;
  siteId: string;
  language: Language;
  isAdministrator: boolean | number;
  mayAskForOthers: boolean | number;
  teams: string | { teamId: string; role: TeamRole }[] | null;
  kept: string | KeptWork[] | null;
};

const SEEN_EVERY_MS = 60_000;
/** So long a process goes by what it has read of a session: a page asks for several things at once. */
const KNOWN_MS = 1_000;
const MOST_KNOWN = 10_000;

type Known = { viewer: SignedIn; until: number };

const known = new WeakMap<Database, Map<string, Known>>();

/** Has this process read sessions anew: one has ended, or what is said of its person has changed. */
export function forgetViewers({ db }: Listo): void {
  known.delete(db);
}

/** The person behind a session's token, or null when it is unknown, ended (elsewhere: a second ago) or expired. */
export async function findViewer(listo: Listo, token: string): Promise<SignedIn | null> {
  const sessionId = hashToken(token);
  const viewers = known.get(listo.db) ?? new Map<string, Known>();
  const kept = viewers.get(sessionId);
  if (kept && performance.now() < kept.until) return kept.viewer;
  if (viewers.size >= MOST_KNOWN) viewers.clear();
  known.set(listo.db, viewers);
  const viewer = await readViewer(listo, sessionId);
  if (viewer) viewers.set(sessionId, { viewer, until: performance.now() + KNOWN_MS });
  else viewers.delete(sessionId);
  return viewer;
}

/** What tells whether a second factor is asked of the person of a session. */
type Entering = { way: SessionWay; hasFactor: number; signOn: unknown };
const ENTERING_SQL = `s.way, EXISTS (SELECT 1 FROM second_factors f WHERE f.personId = p.id AND f.confirmedAt IS NOT NULL)
  AS hasFactor, (SELECT value FROM settings WHERE name = '${SIGN_ON_SETTING}') AS signOn`;

/** Of whom came by a provider, the provider has asked what it asks for. */
const isAsked = ({ way, hasFactor, signOn }: Entering, viewer: SignedIn): boolean => {
  if ((way !== 'password' && way !== 'link') || hasFactor) return false;
  const settings: unknown = typeof signOn === 'string' ? JSON.parse(signOn) : signOn;
  return needsFactor(toSignOn(settings), viewer);
};

const toEntering = (row: Row & Entering, sessionId: string): SignedIn => {
  const viewer = toViewer(row, sessionId);
  return isAsked(row, viewer) ? { ...viewer, mustSetFactor: true } : viewer;
};

/** The teams that keep their work to some. */
const KEPT_SQL = `SELECT JSON_ARRAYAGG(JSON_OBJECT('teamId', k.id, 'readBy', JSON_COMPACT(k.readBy), 'givenOnBy', JSON_COMPACT(k.givenOnBy)))
  FROM teams k WHERE JSON_TYPE(k.readBy) = 'ARRAY'`;

/** A list that the database made, which its driver may have left as text. */
const toList = <T>(value: string | T[] | null): T[] =>
  (typeof value === 'string' ? (JSON.parse(value) as T[]) : value) ?? [];

/** The teams whose work is closed to a program or a person. */
export async function readClosedTeams(
  { db }: Listo,
  who: Pick<Viewer, 'isAdministrator' | 'teams'>,
): Promise<string[]> {
  const [row] = await db.select<{ kept: string | KeptWork[] | null }>(`SELECT (${KEPT_SQL}) AS kept`);
  return listClosedTeams(toList(row?.kept ?? null), who);
}

const PERSON_SQL = `SELECT p.id AS personId, p.name, p.siteId, p.language, p.isAdministrator, p.mayAskForOthers,
  (SELECT JSON_ARRAYAGG(JSON_OBJECT('teamId', m.teamId, 'role', m.role)) FROM team_members m WHERE m.personId = p.id) AS teams,
  (${KEPT_SQL}) AS kept`;

function toViewer(row: Row, sessionId: string): SignedIn {
  const who = { teams: toList(row.teams), isAdministrator: Boolean(row.isAdministrator) };
  return {
    ...who,
    closedTeamIds: listClosedTeams(toList(row.kept), who),
    sessionId,
    id: row.personId,
    name: row.name,
    siteId: row.siteId,
    language: row.language,
    mayAskForOthers: Boolean(row.mayAskForOthers),
  };
}

/** A session goes on until its end, as long as its person does something now and then. */
const isGoing = ({ config, clock }: Listo): { sql: string; values: Record<string, number> } => ({
  sql: 's.expiresAt > :now AND s.seenAt > :idleSince AND p.leftAt IS NULL',
  values: { now: clock.now(), idleSince: clock.now() - config.LISTO_SESSION_IDLE_HOURS * 3_600_000 },
});

/** Those of some sessions that go on, with their people's rights as they are now. */
export async function readSessions(listo: Listo, sessionIds: string[]): Promise<Map<string, SignedIn>> {
  const { sql, values } = isGoing(listo);
  const rows = await listo.db.select<Row & Entering & { sessionId: string }>(
    `${PERSON_SQL}, ${ENTERING_SQL}, s.id AS sessionId FROM sessions s JOIN people p ON p.id = s.personId WHERE s.id IN (:sessionIds) AND ${sql}`,
    { ...values, sessionIds },
  );
  const viewers = rows.map((row) => toEntering(row, row.sessionId));
  return new Map(
    viewers.filter(({ mustSetFactor }) => !mustSetFactor).map((viewer) => [viewer.sessionId, viewer]),
  );
}

/** What someone may do, as one text that differs when that does. */
export function rightsOf({ isAdministrator, mayAskForOthers, teams, closedTeamIds }: SignedIn): string {
  const inOrder = teams.map(({ teamId, role }) => `${teamId} ${role}`).sort();
  return JSON.stringify([isAdministrator, mayAskForOthers, inOrder, closedTeamIds]);
}

async function readViewer(listo: Listo, sessionId: string): Promise<SignedIn | null> {
  const { db, clock } = listo;
  const now = clock.now();
  const { sql, values } = isGoing(listo);
  const [row] = await db.select<Row & Entering & { seenAt: number }>(
    `${PERSON_SQL}, ${ENTERING_SQL}, s.seenAt FROM sessions s JOIN people p ON p.id = s.personId WHERE s.id = :sessionId AND ${sql}`,
    { ...values, sessionId },
  );
  if (!row) return null;
  if (now - row.seenAt > SEEN_EVERY_MS) await db.tables.sessions.update({ id: sessionId }, { seenAt: now });
  return toEntering(row, sessionId);
}

/** Someone who works here as one who acts, by another door than a session. */
export async function findPersonAsViewer({ db }: Listo, personId: string): Promise<SignedIn | null> {
  const [row] = await db.select<Row>(
    `${PERSON_SQL} FROM people p WHERE p.id = :personId AND p.leftAt IS NULL`,
    {
      personId,
    },
  );
  return row ? toViewer(row, '') : null;
}
