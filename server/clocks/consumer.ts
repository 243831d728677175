import type { Transaction } from 'sequelize';
import type { Consumer } from '../journal/consumer';
import type { Listo } from '../listo';
import type { ClockRow } from './model';
import { readEditions } from './editions';
import { listTargets } from './read';
import {
  groupBy,
  settleTicket,
  type ClockEntry,
  type ClockOwner,
  type Settled,
  type Settling,
} from './ticketClocks';
import { isSameClock, nameOfClock, writeClocks } from './writeClocks';
import type { UnitOfWork } from '../unitOfWork';

/** So many tickets are read while the database is at those before and after them. */
const PART = 125;

type Loaded = { owners: ClockOwner[]; entries: ClockEntry[]; known: ClockRow[] };

/** @param ofGoing whether of clocks only those that are going are wanted */
async function load(
  {
    listo: {
      db: { select },
    },
    tx,
  }: UnitOfWork,
  numbers: number[],
  { ofGoing }: { ofGoing: boolean },
): Promise<Loaded> {
  const [owners, entries, known] = await Promise.all([
    select<ClockOwner>(
      'SELECT number, state, dueAt, progressFinishedAt, tightestDueAt FROM tickets WHERE number IN (:numbers)',
      { numbers },
      tx,
    ),
    select<ClockEntry>(
      "SELECT ticketNumber, work, at, changes FROM journal WHERE ticketNumber IN (:numbers) AND changes <> '{}' ORDER BY id",
      { numbers },
      tx,
    ),
    select<ClockRow>(
      `SELECT * FROM clocks WHERE ticketNumber IN (:numbers)
       ${ofGoing ? "AND state IN ('running', 'paused')" : ''}`,
      { numbers },
      tx,
    ),
  ]);
  return { owners, entries, known };
}

async function writeTightest(
  { db }: Listo,
  settled: (Settled & { owner: ClockOwner })[],
  tx: Transaction,
): Promise<void> {
  const moved = settled.filter(({ owner, tightestDueAt }) => owner.tightestDueAt !== tightestDueAt);
  if (moved.length === 0) return;
  await db.runBound(
    `UPDATE tickets t JOIN JSON_TABLE(?, '$[*]' COLUMNS (number BIGINT PATH '$.number', due BIGINT PATH '$.due')) d
       ON d.number = t.number SET t.tightestDueAt = d.due`,
    [JSON.stringify(moved.map(({ owner, tightestDueAt: due }) => ({ number: owner.number, due })))],
    tx,
  );
}

/** @returns how many of the going clocks have another due instant than before */
async function settlePart(
  { listo, tx }: UnitOfWork,
  { owners, entries, known }: Loaded,
  settling: Settling,
): Promise<number> {
  const entriesOf = groupBy(entries, ({ ticketNumber }) => ticketNumber!);
  const knownOf = groupBy(known, ({ ticketNumber }) => ticketNumber);
  const settled = owners.map((owner) => ({
    owner,
    ...settleTicket(
      owner,
      { entries: entriesOf.get(owner.number) ?? [], known: knownOf.get(owner.number) ?? [] },
      settling,
    ),
  }));
  const before = new Map(known.map((clock) => [nameOfClock(clock), clock]));
  const clocks = settled
    .flatMap((each) => each.clocks)
    .filter((clock) => !isSameClock(clock, before.get(nameOfClock(clock))));
  await Promise.all([writeClocks(listo, clocks, tx), writeTightest(listo, settled, tx)]);
  return clocks.filter(
    (clock) =>
      (clock.state === 'running' || clock.state === 'paused') &&
      before.get(nameOfClock(clock))?.dueAt !== clock.dueAt,
  ).length;
}

/**
 * Reads the clocks of some tickets anew and writes what changed of them, with the notices that they owe.
 * @param targetIds the promises whose going clocks alone are read; absent: every clock, also those that begin
 * @returns how many of the going clocks have another due instant than before
 */
export async function settleClocks(
  { listo, tx }: UnitOfWork,
  numbers: number[],
  targetIds?: string[] | null,
): Promise<number> {
  const settling: Settling = {
    targets: await listTargets(listo),
    calendars: await listo.calendars.getAll(),
    now: listo.clock.now(),
    editions: await readEditions(listo),
    only: targetIds ? new Set(targetIds) : undefined,
  };
  const parts = Array.from({ length: Math.ceil(numbers.length / PART) }, (_, i) =>
    numbers.slice(i * PART, (i + 1) * PART),
  );
  const settled = await Promise.all(
    parts.map(async (part) =>
      settlePart({ listo, tx }, await load({ listo, tx }, part, { ofGoing: Boolean(targetIds) }), settling),
    ),
  );
  return settled.reduce((sum, moved) => sum + moved, 0);
}

/** Keeps clocks and the notices that they owe true to the journal. */
export const clocksConsumer: Consumer = {
  name: 'clocks',
  hears: ({ ticketNumber, changes }) => ticketNumber !== null && Object.keys(changes).length > 0,
  async handle(listo, changed, tx) {
    await settleClocks({ listo, tx }, [...new Set(changed.map(({ ticketNumber }) => ticketNumber!))]);
  },
};
