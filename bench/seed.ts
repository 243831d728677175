import type { Listo } from '../server/listo';

/** Columns that the database hands out or works out. */
const MADE = new Set(['number', 'moveBy']);
const DAY_MS = 86_400_000;
const OPEN = 50_000;
/** Numbers of copies: of what is over, then of what is open. */
const COPIES = 1_000_000;
const OPEN_COPIES = 2_000_000_000;

async function count(listo: Listo, where = 'TRUE', values = {}): Promise<{ tickets: number; open: number }> {
  const [row] = await listo.db.select<{ tickets: number; open: number }>(
    `SELECT COUNT(*) AS tickets, SUM(state IN ('received', 'inWork', 'held')) AS open FROM tickets WHERE ${where}`,
    values,
  );
  return row!;
}

async function columnsOf(listo: Listo, table: string): Promise<string[]> {
  const rows = await listo.db.select<{ name: string }>(
    'SELECT COLUMN_NAME AS name FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = :table ORDER BY ORDINAL_POSITION',
    { table },
  );
  return rows.map(({ name }) => name).filter((name) => !MADE.has(name));
}

/**
 * Fills the demo up to so many tickets, a share of them open (50,000 at most): the demo's own, again and again, each
 * copy some days further back (open ones some minutes apart), with the clocks of the open ones.
 */
export async function seedTickets(
  listo: Listo,
  wanted: number,
  openShare = 1 / 20,
): Promise<{ tickets: number; open: number }> {
  const { select, run } = listo.db;
  const { tickets, open } = await count(listo);
  if (tickets >= wanted) return { tickets, open };
  // The demo's own; copies have numbers beyond.
  const own = await count(listo, 'number < :copies', { copies: COPIES });
  const columns = await columnsOf(listo, 'tickets');
  const shifted = (shift: string): string =>
    columns
      .map((column) =>
        /At$|waitsSince/.test(column) && column !== 'tightestDueAt'
          ? `t.${column} - ${shift}`
          : `t.${column}`,
      )
      .join();
  const copy = async (
    done: number,
    times: number,
    { isOpen, shift }: { isOpen: boolean; shift: string },
  ): Promise<void> => {
    // A few copies a statement keep transactions small.
    for (let from = done + 1; from <= times; from += 10) {
      const to = Math.min(times, from + 9);
      await run(
        `INSERT INTO tickets (number, ${columns.join()}) SELECT :base + n.seq * 100000 + t.number, ${shifted(shift)}
         FROM tickets t JOIN seq_${from}_to_${to} n WHERE t.number < :copies AND t.state ${isOpen ? '' : 'NOT'} IN ('received', 'inWork', 'held')`,
        { base: isOpen ? OPEN_COPIES : COPIES, copies: COPIES },
      );
    }
  };
  const openWanted = Math.min(OPEN, Math.ceil(wanted * openShare));
  const closedOwn = own.tickets - own.open;
  const timesOpen = Math.round(openWanted / own.open) - 1;
  const timesClosed = Math.ceil((wanted - openWanted) / closedOwn) - 1;
  await copy(Math.round(open / own.open) - 1, timesOpen, { isOpen: true, shift: 'n.seq * 61000' });
  await copy(Math.round((tickets - open) / closedOwn) - 1, timesClosed, {
    ...{ isOpen: false, shift: `n.seq * ${DAY_MS / 4}` },
  });
  const clocks = (await columnsOf(listo, 'clocks')).filter((column) => column !== 'ticketNumber');
  const names = clocks.map((column) => `\`${column}\``);
  await run(
    `INSERT IGNORE INTO clocks (ticketNumber, ${names.join()}) SELECT t.number, ${names.map((name) => `c.${name}`).join()}
     FROM tickets t JOIN clocks c ON c.ticketNumber = (t.number - ${OPEN_COPIES}) MOD 100000 WHERE t.number > ${OPEN_COPIES}`,
  );
  await select('ANALYZE TABLE tickets, clocks');
  return count(listo);
}
