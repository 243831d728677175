import { ticketFactOf, type FactEntry } from '../../core/measures';
import { groupBy } from '../clocks/ticketClocks';
import type { Consumer } from '../journal/consumer';
import type { TimerHandler } from '../timers/runner';
import type { UnitOfWork } from '../unitOfWork';
import { FACT_NAMES, type TicketFactRow } from './model';

/** So many tickets are gathered in one go, so that other timers have their turn between. */
const CHUNK = 500;
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
export async function askForFacts({ listo, tx }: UnitOfWork, from = 0): Promise<void> {
  await listo.db.tables.timers.insertAll(
    [{ ticketNumber: 0, kind: 'gatherFacts', ref: String(from), at: 0 }],
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
    if (rows.length === CHUNK) await askForFacts({ listo, tx }, rows.at(-1)!.number);
  }
};

/** Whether facts of tickets are still being gathered, so that figures are not yet whole. */
export async function isGathering({ db }: UnitOfWork['listo']): Promise<boolean> {
  const rows = await db.select<{ found: number }>(
    "SELECT 1 AS found FROM timers WHERE ticketNumber = 0 AND kind = 'gatherFacts' LIMIT 1",
    {},
  );
  return rows.length > 0;
}
