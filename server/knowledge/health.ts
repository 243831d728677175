import { groupQuestions, rankByNeed, withoutPersons } from '../../core/knowledge';
import { LANGUAGES, type LocalText } from '../../core/forms';
import type { ArticleState } from '../../core/knowledge';
import type { Fates } from '../../contract/knowledge';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { visibleTo } from '../tickets/visibility';
import { createReader } from './find';
import { handOf } from './keep';
import type { ArticleRow } from './model';
import type { Viewing } from '../unitOfWork';

const DAY_MS = 86_400_000;
const WEEK_MS = 7 * DAY_MS;
const MOST_QUESTIONS = 3_000;
const GROUPS_SHOWN = 60;

export type Counts = {
  shown: number;
  opened: number;
  helped: number;
  notHelped: number;
  deflected: number;
  shared: number;
  doneWith: number;
  ticketAllTheSame: number;
};
const NONE: Counts = {
  ...{ shown: 0, opened: 0, helped: 0, notHelped: 0 },
  ...{ deflected: 0, shared: 0, doneWith: 0, ticketAllTheSame: 0 },
};

const sumOf = (when: string): string => `CAST(SUM(${when}) AS INT)`;
const COUNTS_SQL = `SELECT u.articleId, ${['shown', 'opened', 'helped', 'notHelped', 'shared']
  .map((what) => `${sumOf(`u.what = '${what}'`)} AS ${what}`)
  .join()}, ${sumOf("u.what = 'helped' AND u.isInstead")} AS deflected,
  COUNT(DISTINCT IF(u.what = 'shared' AND t.state IN ('done', 'closed'), u.ticketNumber, NULL)) AS doneWith
  FROM article_uses u LEFT JOIN tickets t ON t.number = u.ticketNumber`;

/** Opened, and the same person wrote a ticket within a day on a service that offers the article. */
const ALL_THE_SAME_SQL = `SELECT u.articleId, COUNT(DISTINCT t.number) AS count FROM article_uses u
  JOIN articles a ON a.id = u.articleId
  JOIN tickets t ON t.requesterId = u.personId AND t.createdAt BETWEEN u.at AND u.at + ${DAY_MS}
  JOIN services s ON s.id = t.serviceId AND (s.articleLabels IS NULL OR JSON_OVERLAPS(s.articleLabels, a.labels))
  WHERE u.what = 'opened' AND u.door IN ('ask', 'form', 'assistant') AND u.at > :since`;

/** How all articles fared since. */
async function countAll({ db }: Listo, since: number, articleId?: string): Promise<Map<string, Counts>> {
  const [one, values] = [
    articleId === undefined ? '' : ' AND u.articleId = :articleId',
    { since, articleId },
  ];
  const rows = await db.select<Omit<Counts, 'ticketAllTheSame'> & { articleId: string }>(
    `${COUNTS_SQL} WHERE u.at > :since${one} GROUP BY u.articleId`,
    values,
  );
  const same = await db.select<{ articleId: string; count: number }>(
    `${ALL_THE_SAME_SQL}${one} GROUP BY u.articleId`,
    values,
  );
  const sameOf = new Map(same.map(({ articleId: id, count }) => [id, count]));
  return new Map(
    rows.map(({ articleId: id, ...counts }) => [id, { ...counts, ticketAllTheSame: sameOf.get(id) ?? 0 }]),
  );
}

/** How an article has fared altogether. */
export async function readCounts(listo: Listo, articleId: string): Promise<Counts> {
  return (await countAll(listo, 0, articleId)).get(articleId) ?? NONE;
}

type FateRow = { serviceId: string; week: number; shared: number; without: number };

/**
 * What became of matters: solved by an article alone, done after an agent shared one, done without. Each is in one of
 * the three, so that they add up.
 */
async function readFates({ listo, viewer }: Viewing, since: number, now: number) {
  const { sql, values } = visibleTo(viewer);
  const done = await listo.db.select<FateRow>(
    `SELECT serviceId, week, CAST(SUM(isShared) AS INT) AS shared, CAST(SUM(1 - isShared) AS INT) AS without FROM (
       SELECT t.serviceId, FLOOR((:now - t.resolvedAt) / ${WEEK_MS}) AS week,
         EXISTS(SELECT 1 FROM article_uses u WHERE u.ticketNumber = t.number AND u.what = 'shared') AS isShared
       FROM tickets t WHERE t.resolvedAt > :since AND t.state IN ('done', 'closed') AND ${sql}) each_one
     GROUP BY serviceId, week`,
    { ...values, since, now },
  );
  const alone = await listo.db.select<{ week: number; count: number }>(
    `SELECT FLOOR((:now - at) / ${WEEK_MS}) AS week, COUNT(*) AS count FROM article_uses
     WHERE at > :since AND what = 'helped' AND isInstead GROUP BY week`,
    { since, now },
  );
  const sum = (rows: FateRow[]): Fates => ({
    alone: 0,
    shared: rows.reduce((total, { shared }) => total + shared, 0),
    without: rows.reduce((total, { without }) => total + without, 0),
  });
  const weeks = Math.ceil((now - since) / WEEK_MS);
  return {
    fates: { ...sum(done), alone: alone.reduce((total, { count }) => total + count, 0) },
    byService: [...new Set(done.map(({ serviceId }) => serviceId))]
      .map((serviceId) => ({ serviceId, ...sum(done.filter((row) => row.serviceId === serviceId)) }))
      .sort((one, other) => other.shared + other.without - (one.shared + one.without)),
    weeks: Array.from({ length: weeks }, (_, i) => weeks - 1 - i).map((week) => ({
      ...sum(done.filter((row) => row.week === week)),
      alone: alone.find((row) => row.week === week)?.count ?? 0,
      from: now - (week + 1) * WEEK_MS,
    })),
  };
}

export async function readHealth(listo: Listo, viewer: SignedIn, days: number) {
  const now = listo.clock.now();
  const since = now - days * DAY_MS;
  const isReader = await createReader(listo, viewer.id);
  const rows = (
    await listo.db.select<
      Pick<ArticleRow, 'id' | 'teamId' | 'isOpen' | 'audience' | 'reviewAt'> & {
        title: LocalText;
        state: ArticleState;
      }
    >("SELECT id, teamId, title, state, isOpen, audience, reviewAt FROM articles WHERE state <> 'retired'")
  ).filter((row) => handOf(viewer, row.teamId) !== 'none' || isReader(row));
  const counts = await countAll(listo, since);
  const articles = rows.map(({ id, title, state }) => ({ id, title, state, ...(counts.get(id) ?? NONE) }));
  return {
    articles: articles.sort((one, other) => other.opened - one.opened),
    needy: rankByNeed(articles)
      .slice(0, 10)
      .map(({ id }) => id),
    due: rows
      .flatMap(({ id, title, reviewAt }) =>
        reviewAt !== null && reviewAt < now ? [{ id, title, reviewAt }] : [],
      )
      .sort((one, other) => one.reviewAt - other.reviewAt),
    ...(await readFates({ listo, viewer }, since, now)),
  };
}

/**
 * What was asked and not answered: nothing was found, or nobody was helped by what was; and what agents said there is
 * nothing on. Each with whether the one who asked wrote a ticket within a day.
 */
export async function readUnanswered(listo: Listo, viewer: SignedIn, days: number) {
  const since = listo.clock.now() - days * DAY_MS;
  const visible = visibleTo(viewer);
  const rows = await listo.db.select<{ words: string; language: 'en' | 'pt'; tickets: number }>(
    `SELECT q.words, q.language, IF(q.ticketNumber IS NOT NULL, 1,
       EXISTS(SELECT 1 FROM tickets t WHERE t.requesterId = q.personId AND t.createdAt BETWEEN q.at AND q.at + ${DAY_MS} AND ${visible.sql})) AS tickets
     FROM questions_asked q LEFT JOIN services s ON s.id = q.serviceId LEFT JOIN teams m ON m.id = s.teamId
     WHERE q.at > :since AND (m.id IS NULL OR NOT m.isConfidential OR m.id IN (:own)) AND (q.ticketNumber IS NOT NULL OR NOT EXISTS(
       SELECT 1 FROM article_uses u WHERE u.personId = q.personId AND u.what = 'helped' AND u.at BETWEEN q.at AND q.at + 3600000))
     AND (q.ticketNumber IS NOT NULL OR q.found = 0 OR EXISTS(
       SELECT 1 FROM article_uses u WHERE u.personId = q.personId AND u.what = 'notHelped' AND u.at BETWEEN q.at AND q.at + 3600000))
     ORDER BY q.at DESC LIMIT ${MOST_QUESTIONS}`,
    { ...visible.values, since, own: [...viewer.teams.map(({ teamId }) => teamId), ''] },
  );
  const [spent] = await listo.db.select<{ minutes: number | null }>(
    `SELECT AVG(sum) AS minutes FROM (SELECT SUM(s.minutes) AS sum FROM time_spent s JOIN tickets t ON t.number = s.ticketNumber
     WHERE s.startedAt > :since AND s.minutes IS NOT NULL AND ${visible.sql} GROUP BY s.ticketNumber) each_one`,
    { ...visible.values, since },
  );
  const groups = LANGUAGES.flatMap((language) =>
    groupQuestions(
      rows
        .filter((row) => row.language === language)
        .map((row) => ({ ...row, words: withoutPersons(row.words, []), tickets: row.tickets })),
      language,
    ).map((group) => ({ ...group, language })),
  );
  return {
    minutesPerTicket: spent?.minutes ?? null,
    groups: groups
      .sort((one, other) => other.tickets - one.tickets || other.asked - one.asked)
      .slice(0, GROUPS_SHOWN),
  };
}
