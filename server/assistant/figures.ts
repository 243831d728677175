import { FINISHED_ALONE, NEEDED_A_PERSON } from '../../core/assistant';
import { withoutPersons } from '../../core/knowledge';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { requireTeacher } from './matters';
import { viewTalk } from './view';

const DAY_MS = 86_400_000;
const LISTED = 100;

const among = (outcomes: readonly string[]): string =>
  `t.outcome IN (${outcomes.map((outcome) => `'${outcome}'`).join()})`;
const ALONE = among(FINISHED_ALONE);
const WHICH = {
  all: 'TRUE',
  understood: 't.matterId IS NOT NULL',
  alone: ALONE,
  handedOver: among(NEEDED_A_PERSON),
} as const;
/** What was said in confidence is counted for, and shown to, its own team alone. */
const SEEN = '(t.confidentialTeamId IS NULL OR t.confidentialTeamId IN (:own))';
const FROM = `FROM talks t LEFT JOIN matters m ON m.id = t.matterId
  WHERE t.startedAt > :since AND t.places > 1 AND ${SEEN}`;

const valuesOf = (listo: Listo, viewer: SignedIn, days: number) => ({
  since: listo.clock.now() - days * DAY_MS,
  own: [...viewer.teams.map(({ teamId }) => teamId), ''],
});

type Counts = { talks: number; understood: number; alone: number; handedOver: number; rating: number | null };
const COUNTS = `COUNT(*) AS talks, CAST(COALESCE(SUM(${WHICH.understood}), 0) AS INT) AS understood,
  CAST(COALESCE(SUM(${ALONE}), 0) AS INT) AS alone, CAST(COALESCE(SUM(${WHICH.handedOver}), 0) AS INT) AS handedOver,
  AVG(t.rating) AS rating`;

export async function readAssistantFigures(listo: Listo, viewer: SignedIn, days: number) {
  requireTeacher(viewer);
  const values = valuesOf(listo, viewer, days);
  const [all] = await listo.db.select<Counts>(`SELECT ${COUNTS} ${FROM}`, values);
  const byMatter = await listo.db.select<Counts & { matterId: string; en: string; pt: string }>(
    `SELECT m.id AS matterId, JSON_VALUE(m.name, '$.en') AS en, JSON_VALUE(m.name, '$.pt') AS pt, ${COUNTS} ${FROM}
     AND m.id IS NOT NULL GROUP BY m.id ORDER BY talks DESC`,
    values,
  );
  return {
    ...all!,
    byMatter: byMatter.map(({ en, pt, understood: _, ...row }) => ({
      ...row,
      name: viewer.language === 'pt' ? pt : en,
    })),
  };
}

type Asked = { days: number; matterId?: string | undefined; which: keyof typeof WHICH };

/** The conversations behind a figure. */
export async function listTalks(listo: Listo, viewer: SignedIn, { days, matterId, which }: Asked) {
  requireTeacher(viewer);
  const rows = await listo.db.select<{
    id: string;
    at: number;
    personId: string;
    first: string | null;
    matter: string | null;
    outcome: string | null;
    rating: number | null;
  }>(
    `SELECT t.id, t.startedAt AS at, t.personId, t.outcome, t.rating, JSON_VALUE(m.name, '$.${viewer.language}') AS matter,
       (SELECT JSON_VALUE(u.said, '$.text') FROM talk_turns u WHERE u.talkId = t.id AND u.isByPerson ORDER BY u.place LIMIT 1) AS first
     ${FROM} AND ${WHICH[which]} ${matterId === undefined ? '' : 'AND t.matterId = :matterId'}
     ORDER BY t.startedAt DESC LIMIT ${LISTED}`,
    { ...valuesOf(listo, viewer, days), matterId },
  );
  const people = await readPeople(
    listo,
    rows.map(({ personId }) => personId),
  );
  const names = [...people.values()].map(({ name }) => name);
  return rows.map(({ personId, first, ...row }) => ({
    ...row,
    // Who said it is nobody's to read but theirs.
    person: personId === viewer.id ? (people.get(personId) ?? null) : null,
    first: personId === viewer.id ? (first ?? '') : withoutPersons(first ?? '', names),
  }));
}

/** A conversation as it ran, for those who look after the assistant. */
export async function readTalk(listo: Listo, viewer: SignedIn, id: string) {
  requireTeacher(viewer);
  const [seen] = await listo.db.select<{ id: string }>(`SELECT t.id ${FROM} AND t.id = :id`, {
    ...valuesOf(listo, viewer, 366),
    id,
  });
  const row = seen && (await listo.db.tables.talks.findOne({ id }));
  if (!row) throw new ProblemError('notFound');
  return viewTalk(listo, row, true);
}
