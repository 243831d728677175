import type { Transaction } from 'sequelize';
import { isOpen, toHistory } from '../../core/tickets';
import type { Calendars } from '../../core/targets';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { NOTHING_DUE, type TicketRecord } from '../tickets/model';
import type { ClockRow, TargetRow } from './model';
import { editionFor, inEdition, NO_EDITIONS, readEditions, type Editions } from './editions';
import { listTargets } from './read';
import { isGiven, noticesOf, tightestOf, toClockRow } from './settle';

const CLOCK_COLUMNS = [
  'edition' as const,
  ...(['state', 'startedAt', 'countedFrom', 'elapsed', 'pausedFor', 'limit', 'dueAt'] as const),
  ...(['breachedAt', 'stoppedAt', 'calendarId', 'held', 'fired', 'owed', 'nextAt'] as const),
];

type Entry = Pick<JournalRow, 'ticketNumber' | 'work' | 'at' | 'changes'>;
type Owner = Pick<TicketRecord, 'number' | 'state' | 'dueAt' | 'tightestDueAt'>;
type Settled = { clocks: ClockRow[]; tightestDueAt: number };

function groupBy<T>(rows: T[], keyOf: (row: T) => string | number): Map<string | number, T[]> {
  const groups = new Map<string | number, T[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group) group.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return groups;
}

type Read = {
  targets: TargetRow[];
  calendars: Calendars;
  now: number;
  /** Former editions of promises, for the clocks that still run by them. */
  editions?: Editions;
  /** The promises whose clocks are read; those of others stay as they are known. */
  isRead?: (targetId: string) => boolean;
};

/** Reads the clocks of a ticket and of what belongs to it. Clocks that never started are left out. */
export function readSettled(
  ticket: Owner,
  entries: Entry[],
  known: ClockRow[],
  { targets, calendars, now, editions = NO_EDITIONS, isRead = () => true }: Read,
): Settled {
  const clocks: ClockRow[] = [];
  for (const [work, own] of groupBy(entries, (entry) => entry.work)) {
    const history = toHistory(own, String(work));
    // What has been recorded has happened, also where this machine's clock is behind another's.
    const readAt = Math.max(now, own.at(-1)!.at);
    for (const latest of targets) {
      if (!isRead(latest.id)) continue;
      const before = known.find((clock) => clock.work === work && clock.targetId === latest.id);
      const edition = before?.edition ?? editionFor(latest, own[0]!.at);
      // It is a promise for what is opened from now on.
      if (edition === 0) continue;
      const target = inEdition(latest, edition, editions);
      const row = toClockRow(target, calendars, history, readAt);
      const fired = before?.fired ?? [];
      const owed = noticesOf(target, calendars, row).filter((notice) => !isGiven(notice, fired, row));
      const nextAt = owed[0]?.[1] ?? null;
      const { reading: _, readAt: __, ...stored } = row;
      if (stored.state !== 'notStarted' || before)
        clocks.push({
          ...stored,
          edition,
          ticketNumber: ticket.number,
          work: String(work),
          fired,
          owed,
          nextAt,
        });
    }
  }
  const isInUse = ({ targetId }: ClockRow): boolean => targets.some(({ id }) => id === targetId);
  const kept = known.filter((clock) => !isRead(clock.targetId) && isInUse(clock));
  const promised = tightestOf([...clocks, ...kept].filter(({ work }) => work === 'ticket'));
  const byHand = isOpen(ticket.state) ? (ticket.dueAt ?? NOTHING_DUE) : NOTHING_DUE;
  // A promise that was switched off owes no word.
  const silenced = known.filter((clock) => !isInUse(clock) && clock.nextAt !== null);
  clocks.push(...silenced.map((clock) => ({ ...clock, owed: [], nextAt: null })));
  return { clocks, tightestDueAt: Math.min(promised, byHand) };
}

const nameOf = ({ ticketNumber, work, targetId }: ClockRow): string => `${ticketNumber} ${work} ${targetId}`;

function isSame(one: ClockRow, other: ClockRow | undefined): boolean {
  if (!other) return false;
  return CLOCK_COLUMNS.every((column) =>
    typeof one[column] === 'object' && one[column] !== null
      ? JSON.stringify(one[column]) === JSON.stringify(other[column])
      : one[column] === other[column],
  );
}

/** Writes clocks in one statement, their rows as one JSON text: many at once are cheap so. */
async function writeClocks(listo: Listo, clocks: ClockRow[], tx: Transaction): Promise<void> {
  if (clocks.length === 0) return;
  const columns = ['ticketNumber', 'work', 'targetId', ...CLOCK_COLUMNS];
  const typeOf = (column: string): string =>
    ['held', 'fired', 'owed'].includes(column)
      ? 'JSON'
      : ['work', 'targetId', 'state', 'calendarId'].includes(column)
        ? 'VARCHAR(60)'
        : 'BIGINT';
  await listo.db.runBound(
    `INSERT INTO clocks (${columns.map((column) => `\`${column}\``).join()})
     SELECT ${columns.map((column) => `d.\`${column}\``).join()} FROM JSON_TABLE(?, '$[*]' COLUMNS
       (${columns.map((column) => `\`${column}\` ${typeOf(column)} PATH '$.${column}'`).join()})) d
     ON DUPLICATE KEY UPDATE ${CLOCK_COLUMNS.map((column) => `\`${column}\` = VALUES(\`${column}\`)`).join()}`,
    [JSON.stringify(clocks)],
    tx,
  );
}

/**
 * Reads the clocks of some tickets anew and writes what changed of them, with the notices that they owe.
 * @param targetIds the promises to read; absent: all
 * @returns how many of the going clocks have another due instant than before
 */
export async function settleClocks(
  listo: Listo,
  numbers: number[],
  tx: Transaction,
  targetIds?: string[] | null,
): Promise<number> {
  const { select, runBound } = listo.db;
  const chosen = targetIds && new Set(targetIds);
  const isRead = (targetId: string): boolean => !chosen || chosen.has(targetId);
  const read: Read = {
    targets: await listTargets(listo),
    calendars: await listo.calendars.getAll(),
    now: listo.clock.now(),
    editions: await readEditions(listo),
    isRead,
  };
  const owners = await select<Owner>(
    'SELECT number, state, dueAt, tightestDueAt FROM tickets WHERE number IN (:numbers)',
    { numbers },
    tx,
  );
  const rows = await select<Entry>(
    "SELECT ticketNumber, work, at, changes FROM journal WHERE ticketNumber IN (:numbers) AND changes <> '{}' ORDER BY id",
    { numbers },
    tx,
  );
  const entries = groupBy(rows, ({ ticketNumber }) => ticketNumber!);
  const knownClocks = await select<ClockRow>(
    'SELECT * FROM clocks WHERE ticketNumber IN (:numbers)',
    { numbers },
    tx,
  );
  const known = groupBy(knownClocks, ({ ticketNumber }) => ticketNumber);
  const settled = owners.map((owner) => ({
    owner,
    ...readSettled(owner, entries.get(owner.number) ?? [], known.get(owner.number) ?? [], read),
  }));
  const before = new Map(knownClocks.map((clock) => [nameOf(clock), clock]));
  const clocks = settled
    .flatMap((each) => each.clocks)
    .filter((clock) => !isSame(clock, before.get(nameOf(clock))));
  await writeClocks(listo, clocks, tx);
  const tightest = settled.filter(({ owner, tightestDueAt }) => owner.tightestDueAt !== tightestDueAt);
  if (tightest.length > 0)
    await runBound(
      `UPDATE tickets t JOIN JSON_TABLE(?, '$[*]' COLUMNS (number BIGINT PATH '$.number', due BIGINT PATH '$.due')) d
         ON d.number = t.number SET t.tightestDueAt = d.due`,
      [JSON.stringify(tightest.map(({ owner, tightestDueAt: due }) => ({ number: owner.number, due })))],
      tx,
    );
  return clocks.filter(
    (clock) =>
      (clock.state === 'running' || clock.state === 'paused') &&
      before.get(nameOf(clock))?.dueAt !== clock.dueAt,
  ).length;
}

/** Keeps clocks and the notices that they owe true to the journal. */
export const clocksConsumer: Consumer = {
  name: 'clocks',
  async handle(listo, entries, tx) {
    const changed = entries.filter(
      ({ ticketNumber, changes }) => ticketNumber !== null && Object.keys(changes).length > 0,
    );
    const numbers = [...new Set(changed.map(({ ticketNumber }) => ticketNumber!))];
    if (numbers.length > 0) await settleClocks(listo, numbers, tx);
  },
};
