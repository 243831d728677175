import type { Language } from '../../core/forms';
import type { TeamRole, Viewer } from '../../core/rights';
import type { Listo } from '../listo';
import { hashToken } from './token';

export type SignedIn = Viewer & { sessionId: string; name: string; siteId: string; language: Language };

type Row = {
  personId: string;
  name: string;
  siteId: string;
  language: Language;
  isAdministrator: boolean | number;
  mayAskForOthers: boolean | number;
  seenAt: number;
  teams: string | { teamId: string; role: TeamRole }[] | null;
};

const SEEN_EVERY_MS = 60_000;

/** The person behind a session's token, or null when it is unknown, ended or expired. */
export async function findViewer(listo: Listo, token: string): Promise<SignedIn | null> {
  const { db, clock } = listo;
  const sessionId = hashToken(token);
  const now = clock.now();
  const [row] = await db.select<Row>(
    `SELECT p.id AS personId, p.name, p.siteId, p.language, p.isAdministrator, p.mayAskForOthers, s.seenAt,
       (SELECT JSON_ARRAYAGG(JSON_OBJECT('teamId', m.teamId, 'role', m.role)) FROM team_members m WHERE m.personId = p.id) AS teams
     FROM sessions s JOIN people p ON p.id = s.personId
     WHERE s.id = :sessionId AND s.expiresAt > :now AND p.leftAt IS NULL`,
    { sessionId, now },
  );
  if (!row) return null;
  if (now - row.seenAt > SEEN_EVERY_MS) await db.tables.sessions.update({ id: sessionId }, { seenAt: now });
  const teams =
    typeof row.teams === 'string'
      ? (JSON.parse(row.teams) as { teamId: string; role: TeamRole }[])
      : row.teams;
  return {
    sessionId,
    id: row.personId,
    name: row.name,
    siteId: row.siteId,
    language: row.language,
    teams: teams ?? [],
    isAdministrator: Boolean(row.isAdministrator),
    mayAskForOthers: Boolean(row.mayAskForOthers),
  };
}
