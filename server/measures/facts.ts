import { ticketFactOf, type FactEntry } from '../../core/measures';
import { groupBy } from '../clocks/ticketClocks';
import type { Consumer } from '../journal/consumer';
import type { TimerHandler } from '../timers/runner';
import type { UnitOfWork } from '../unitOfWork';
import { FACT_NAMES, type TicketFactRow } from './model';

/** So many tickets are gathered in one go, and then for so long none (ms), so that what people wait for has its turn. */
const [CHUNK, PAUSE_MS] = [250, 100];
/** What counts no time, where a team or its calendar is gone. */
const never = (): number => 0;

type Entry = FactEntry & { ticketNumber: number };

/** A row is written over by one that rests on the same entries or more, never by one that rests on fewer. */
const TAKEN_OVER = FACT_NAMES.filter((name) => name !== 'number')
  .map((name) => `\`${name}\` = IF(VALUES(upTo) >= upTo, VALUES(\`${name}\`), \`${name}\`)`)
  .join(', ');

/** Gathers from the journal alone what figures count of some tickets. */
export async function keepFacts({ listo, tx }: UnitOfWork, numbers: number[]): Promise<void> {
  if (numbers.length === 0) return;
  const { db } = listo;
  const entries = await db.select<Entry>(
    `SELECT id, ticketNumber, at, type, via, changes FROM journal
     WHERE ticketNumber IN (:numbers) AND work = 'ticket' AND (changes <> '{}' OR type = 'answered') ORDER BY id`,
    { numbers },
    tx,
  );
  const [teams, calendars] = await Promise.all([
    db.select<{ id: string; calendarId: string }>('SELECT id, calendarId FROM teams', {}, tx),
    listo.calendars.getAll(),
  ]);
  const calendarOf = new Map(teams.map(({ id, calendarId }) => [id, calendars[calendarId]]));
  const byTicket = groupBy(entries, ({ ticketNumber }) => ticketNumber);
  const rows = [...byTicket].flatMap(([number, own]): TicketFactRow[] => {
    const teamId = own.findLast(({ changes }) => changes.teamId)?.changes.teamId?.to;
    const calendar = calendarOf.get(String(teamId));
    const fact = ticketFactOf(own, calendar ? calendar.workingBetween.bind(calendar) : never);
    return fact ? [{ number, ...fact }] : [];
  });
  if (rows.length === 0) return;
  const places = `(${FACT_NAMES.map(() => '?').join()})`;
  await db.runBound(
    `INSERT INTO ticket_facts (${FACT_NAMES.map((name) => `\`${name}\``).join()})
     VALUES ${rows.map(() => places).join()} ON DUPLICATE KEY UPDATE ${TAKEN_OVER}`,
    rows.flatMap((row) => FACT_NAMES.map((name) => row[name as keyof TicketFactRow])),
    tx,
  );
}

/** Keeps what figures count true to the journal. */
export const factsConsumer: Consumer = {
  name: 'facts',
  hears: ({ ticketNumber, work, changes, type }) =>
    ticketNumber !== null && work === 'ticket' && (type === 'answered' || Object.keys(changes).length > 0),
  handle: (listo, heard, tx) =>
    keepFacts({ listo, tx }, [...new Set(heard.map(({ ticketNumber }) => ticketNumber!))]),
};

/** Gathers the facts of all tickets anew, from a number on, while work goes on. */
export async function askForFacts({ listo, tx }: UnitOfWork, from = 0, at = 0): Promise<void> {
  await listo.db.tables.timers.insertAll(
    [{ ticketNumber: 0, kind: 'gatherFacts', ref: String(from), at }],
    tx,
    { updates: ['at'] },
  );
}

/** Gathers the facts of the next tickets in line. */
export const gatherFacts: TimerHandler = async (listo, due, tx) => {
  for (const { ref } of due) {
    const rows = await listo.db.select<{ number: number }>(
      'SELECT number FROM tickets WHERE number > :after ORDER BY number LIMIT :limit',
      { after: Number(ref), limit: CHUNK },
      tx,
    );
    await keepFacts(
      { listo, tx },
      rows.map(({ number }) => number),
    );
    if (rows.length === CHUNK)
      await askForFacts({ listo, tx }, rows.at(-1)!.number, listo.clock.now() + PAUSE_MS);
  }
};

/** Gathers the facts of all tickets at once, where nobody works yet. */
export async function gatherAllFacts({ listo }: Pick<UnitOfWork, 'listo'>): Promise<void> {
  const { tables } = listo.db;
  await listo.db.transaction((tx) => tables.timers.remove({ ticketNumber: 0, kind: 'gatherFacts' }, tx));
  for (let after = 0; ;) {
    const rows = await listo.db.select<{ number: number }>(
      'SELECT number FROM tickets WHERE number > :after ORDER BY number LIMIT :limit',
      { after, limit: CHUNK },
    );
    if (rows.length === 0) return;
    const numbers = rows.map(({ number }) => number);
    await listo.db.transaction((tx) => keepFacts({ listo, tx }, numbers));
    after = numbers.at(-1)!;
  }
}

/** Whether facts of tickets are still being gathered, so that figures are not yet whole. */
export async function isGathering({ db }: UnitOfWork['listo']): Promise<boolean> {
  const rows = await db.select<{ found: number }>(
    "SELECT 1 AS found FROM timers WHERE ticketNumber = 0 AND kind = 'gatherFacts' LIMIT 1",
    {},
  );
  return rows.length > 0;
}
