import { GROUPINGS, type Grouping } from '../../contract/complianceNames';
import type { Compliance, ComplianceRow, TallyView } from '../../contract/compliance';
import { toTally, whereTimeWent } from '../../core/compliance';
import { standingSql } from '../../core/targets';
import type { Language } from '../../core/forms';
import type { Viewer } from '../../core/rights';
import { readGroupNames } from './groupNames';
import { toHistory } from '../../core/tickets';
import { inEdition, readEditions } from '../clocks/editions';
import { ProblemError } from '../http/problems';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { visibleTo } from '../tickets/visibility';

export type Period = { targetId: string; from: number; to: number };
export type Which = Period & {
  by?: Grouping | undefined;
  key?: string | undefined;
  standing?: ComplianceRow['standing'] | undefined;
};

const LISTED = 200;
const MOST_WENT = 2_000;
const CHUNK = 400;
const MINUTE = 60_000;

const COLUMNS: Record<Grouping, string> = {
  team: 't.teamId',
  service: 't.serviceId',
  priority: 't.priority',
  kind: 't.kind',
};

function fromPeriod(listo: Listo, viewer: Viewer, { targetId, from, to }: Period) {
  const { sql, values } = visibleTo(viewer);
  const standing = standingSql('c', listo.clock.now());
  return {
    sql: `FROM clocks c JOIN tickets t ON t.number = c.ticketNumber
      WHERE c.targetId = :targetId AND c.startedAt >= :from AND c.startedAt < :to AND c.state NOT IN ('notStarted', 'cancelled') AND ${sql}`,
    standing: standing.sql,
    values: { ...values, ...standing.values, targetId, from, to },
  };
}

type Counted = { key: string; standing: ComplianceRow['standing']; count: number };

function tallyOf(rows: Counted[]): TallyView {
  return toTally(Object.fromEntries(rows.map(({ standing, count }) => [standing, count])));
}

/** Where the time went: of the latest clocks, from the journal. */
async function readWent(listo: Listo, viewer: Viewer, period: Period): Promise<Compliance['went']> {
  const { select, tables } = listo.db;
  const latest = (await tables.targets.findOne({ id: period.targetId }))!;
  const editions = await readEditions(listo);
  const calendars = await listo.calendars.getAll();
  const now = listo.clock.now();
  const { sql, values } = fromPeriod(listo, viewer, period);
  const clocks = await select<{ ticketNumber: number; work: string; edition: number }>(
    `SELECT c.ticketNumber, c.work, c.edition ${sql} ORDER BY c.startedAt DESC LIMIT ${MOST_WENT}`,
    values,
  );
  const went = { of: clocks.length, own: 0, waited: 0, held: {} as Record<string, number>, outside: 0 };
  for (let i = 0; i < clocks.length; i += CHUNK) {
    const chunk = clocks.slice(i, i + CHUNK);
    const entries = await select<Pick<JournalRow, 'ticketNumber' | 'work' | 'at' | 'changes'>>(
      "SELECT ticketNumber, work, at, changes FROM journal WHERE ticketNumber IN (:numbers) AND changes <> '{}' ORDER BY id",
      { numbers: chunk.map(({ ticketNumber }) => ticketNumber) },
    );
    const byWork = new Map<string, typeof entries>();
    for (const entry of entries) {
      const key = `${entry.ticketNumber} ${entry.work}`;
      byWork.set(key, [...(byWork.get(key) ?? []), entry]);
    }
    for (const { ticketNumber, work, edition } of chunk) {
      const history = toHistory(byWork.get(`${ticketNumber} ${work}`) ?? [], work);
      const { definition } = inEdition(latest, edition, editions);
      const one = whereTimeWent(definition, calendars, history, now);
      went.own += one.own / MINUTE;
      went.waited += one.waited / MINUTE;
      went.outside += one.outside / MINUTE;
      for (const [whom, ms] of Object.entries(one.held))
        went.held[whom] = (went.held[whom] ?? 0) + ms / MINUTE;
    }
  }
  return went;
}

/** Met, missed and still running, in all and parted, with where the time went. */
export async function readCompliance(
  listo: Listo,
  viewer: Viewer & { language: Language },
  period: Period,
): Promise<Compliance> {
  const { select, tables } = listo.db;
  const target = await tables.targets.findOne({ id: period.targetId });
  if (!target) throw new ProblemError('notFound');
  const nameOf = await readGroupNames(listo, viewer.language);
  const { sql, values, standing } = fromPeriod(listo, viewer, period);
  const groups = {} as Compliance['groups'];
  for (const by of GROUPINGS) {
    const rows = await select<Counted>(
      `SELECT ${COLUMNS[by]} AS \`key\`, ${standing} AS standing, COUNT(*) AS count ${sql} GROUP BY 1, 2`,
      values,
    );
    const keys = [...new Set(rows.map(({ key }) => key))];
    groups[by] = keys
      .map((key) => ({ key, name: nameOf(by, key), ...tallyOf(rows.filter((row) => row.key === key)) }))
      .sort((a, b) => (a.name < b.name ? -1 : 1));
  }
  const sum = (name: 'met' | 'missed' | 'running'): number =>
    groups.kind.reduce((total, row) => total + row[name], 0);
  const all = toTally({ met: sum('met'), missed: sum('missed'), running: sum('running') });
  return {
    target: { id: target.id, name: target.definition.name },
    ...{ all, groups, went: await readWent(listo, viewer, period) },
  };
}

/** The tickets behind a number. */
export async function listBehind(
  listo: Listo,
  viewer: Viewer,
  { which: { by, key, standing: asked, ...period }, limit = LISTED }: { which: Which; limit?: number },
): Promise<{ rows: ComplianceRow[]; isMore: boolean }> {
  const { sql, values, standing } = fromPeriod(listo, viewer, period);
  const rows = await listo.db.select<ComplianceRow>(
    `SELECT * FROM (SELECT t.number, t.title, p.name AS requester, ${standing} AS standing, c.elapsed, c.limit, c.dueAt, c.stoppedAt
       ${sql.replace('WHERE', 'JOIN people p ON p.id = t.requesterId WHERE')} ${by && key !== undefined ? `AND ${COLUMNS[by]} = :key` : ''}) r
     ${asked ? 'WHERE r.standing = :standing' : ''} ORDER BY r.number DESC LIMIT :limit`,
    { ...values, key: key ?? '', standing: asked ?? '', limit: limit + 1 },
  );
  return { rows: rows.slice(0, limit), isMore: rows.length > limit };
}
