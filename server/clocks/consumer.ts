import type { Transaction } from 'sequelize';
import { isOpen, toHistory } from '../../core/tickets';
import type { Calendars } from '../../core/targets';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { NOTHING_DUE, type TicketRecord } from '../tickets/model';
import type { TimerRow } from '../timers/model';
import type { ClockRow, TargetRow } from './model';
import { listTargets } from './read';
import { noticesOf, tightestOf, toClockRow } from './settle';

const CLOCK_COLUMNS = [
  ...(['state', 'startedAt', 'countedFrom', 'elapsed', 'pausedFor', 'limit', 'dueAt'] as const),
  ...(['breachedAt', 'stoppedAt', 'calendarId', 'held', 'fired'] as const),
];
const NOTICE_KINDS: TimerRow['kind'][] = ['clockLate', 'clockWarned'];

type Entry = Pick<JournalRow, 'ticketNumber' | 'work' | 'at' | 'changes'>;
type Owner = Pick<TicketRecord, 'number' | 'state' | 'dueAt' | 'tightestDueAt'>;
type Settled = { clocks: ClockRow[]; timers: TimerRow[]; tightestDueAt: number };

function groupBy<T>(rows: T[], keyOf: (row: T) => string | number): Map<string | number, T[]> {
  const groups = new Map<string | number, T[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group) group.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return groups;
}

/** Reads every clock of a ticket and of what belongs to it. Clocks that never started are left out. */
export function readSettled(
  ticket: Owner,
  entries: Entry[],
  known: ClockRow[],
  { targets, calendars, now }: { targets: TargetRow[]; calendars: Calendars; now: number },
): Settled {
  const clocks: ClockRow[] = [];
  const timers: TimerRow[] = [];
  for (const [work, own] of groupBy(entries, (entry) => entry.work)) {
    const history = toHistory(own, String(work));
    // What has been recorded has happened, also where this machine's clock is behind another's.
    const readAt = Math.max(now, own.at(-1)!.at);
    for (const target of targets) {
      const row = toClockRow(target, calendars, history, readAt);
      const before = known.find((clock) => clock.work === work && clock.targetId === target.id);
      const fired = before?.fired ?? [];
      const owed = noticesOf(target, calendars, String(work), row).filter(({ ref }) => !fired.includes(ref));
      timers.push(...owed.map((notice) => ({ ticketNumber: ticket.number, ...notice })));
      const { reading: _, readAt: __, ...stored } = row;
      if (stored.state !== 'notStarted' || before)
        clocks.push({ ...stored, ticketNumber: ticket.number, work: String(work), fired });
    }
  }
  const promised = tightestOf(clocks.filter(({ work }) => work === 'ticket'));
  const byHand = isOpen(ticket.state) ? (ticket.dueAt ?? NOTHING_DUE) : NOTHING_DUE;
  return { clocks, timers, tightestDueAt: Math.min(promised, byHand) };
}

const timerKey = ({ ticketNumber, kind, ref, at }: TimerRow): string => [ticketNumber, kind, ref, at].join();
const clockKey = (clock: ClockRow): string =>
  JSON.stringify([
    clock.ticketNumber,
    clock.work,
    clock.targetId,
    ...CLOCK_COLUMNS.map((name) => clock[name]),
  ]);

/**
 * Reads the clocks of some tickets anew and writes what changed of them and of their timers.
 * @returns how many of the going clocks have another due instant than before
 */
export async function settleClocks(listo: Listo, numbers: number[], tx: Transaction): Promise<number> {
  const { tables, select, run } = listo.db;
  const within = { transaction: tx };
  const read = {
    targets: await listTargets(listo),
    calendars: await listo.calendars.getAll(),
    now: listo.clock.now(),
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
  const knownClocks = await tables.clocks.find({ ticketNumber: numbers }, within);
  const knownTimers = await tables.timers.find({ ticketNumber: numbers, kind: NOTICE_KINDS }, within);
  const known = groupBy(knownClocks, ({ ticketNumber }) => ticketNumber);
  const settled = owners.map((owner) => ({
    owner,
    ...readSettled(owner, entries.get(owner.number) ?? [], known.get(owner.number) ?? [], read),
  }));

  const before = new Set(knownClocks.map(clockKey));
  const clocks = settled.flatMap((each) => each.clocks).filter((clock) => !before.has(clockKey(clock)));
  await tables.clocks.insertAll(clocks, tx, { updates: [...CLOCK_COLUMNS] });
  const timers = settled.flatMap((each) => each.timers);
  const wanted = new Set(timers.map(timerKey));
  const there = new Set(knownTimers.map(timerKey));
  const gone = knownTimers.filter((timer) => !wanted.has(timerKey(timer)));
  const cleared = new Set(gone.map(({ ticketNumber }) => ticketNumber));
  if (cleared.size > 0) await tables.timers.remove({ ticketNumber: [...cleared], kind: NOTICE_KINDS }, tx);
  await tables.timers.insertAll(
    timers.filter((timer) => cleared.has(timer.ticketNumber) || !there.has(timerKey(timer))),
    tx,
  );
  const tightest = settled.filter(({ owner, tightestDueAt }) => owner.tightestDueAt !== tightestDueAt);
  if (tightest.length > 0)
    await run(
      `UPDATE tickets t JOIN JSON_TABLE(:tightest, '$[*]' COLUMNS (number BIGINT PATH '$.number', due BIGINT PATH '$.due')) d
         ON d.number = t.number SET t.tightestDueAt = d.due`,
      {
        tightest: JSON.stringify(
          tightest.map(({ owner, tightestDueAt: due }) => ({ number: owner.number, due })),
        ),
      },
      tx,
    );
  return countMoved(knownClocks, clocks);
}

/** How many going clocks have another due instant. */
export function countMoved(before: ClockRow[], after: ClockRow[]): number {
  const dueBefore = new Map(
    before.map(({ ticketNumber, work, targetId, dueAt }) => [`${ticketNumber}|${work}|${targetId}`, dueAt]),
  );
  return after.filter(
    ({ ticketNumber, work, targetId, state, dueAt }) =>
      (state === 'running' || state === 'paused') &&
      dueBefore.get(`${ticketNumber}|${work}|${targetId}`) !== dueAt,
  ).length;
}

/** Keeps clocks and their timers true to the journal. */
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
