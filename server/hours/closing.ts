import type { CompiledCalendar } from '../../core/calendar';
import type { TeamRow } from '../people/model';
import type { TicketRecord } from '../tickets/model';
import type { TimerHandler } from '../timers/runner';
import { followHours } from './consumer';
import type { UnitOfWork } from '../unitOfWork';

const DAY = 86_400_000;
/** How far ahead a team's closing is looked for; a calendar without one within it never hands over. */
const AHEAD = 15 * DAY;
const MOST = 2_000;

/**
 * Sets the timer for a team's next closing, if its open work goes to others then.
 * @param changed the team's calendar, where the same transaction changes it
 */
export async function setClosing(
  { listo, tx }: UnitOfWork,
  { id, calendarId, outOfHours }: Pick<TeamRow, 'id' | 'calendarId' | 'outOfHours'>,
  changed?: CompiledCalendar,
): Promise<void> {
  const { tables } = listo.db;
  await tables.timers.remove({ ticketNumber: 0, kind: 'teamCloses', ref: id }, tx);
  const calendar = changed ?? (await listo.calendars.getAll())[calendarId];
  if (outOfHours.goesTo === null || !calendar) return;
  const now = listo.clock.now();
  const [next] = calendar.windowsBetween(now + 1, now + AHEAD);
  if (next && next.to < now + AHEAD)
    await tables.timers.insert({ ticketNumber: 0, kind: 'teamCloses', ref: id, at: next.to }, tx);
}

/** A team closes: what stays open follows its setting. */
export const closeHours: TimerHandler = async (listo, timers, tx) => {
  for (const { ref } of timers) {
    const team = await listo.db.tables.teams.findOne({ id: ref }, tx);
    if (!team) continue;
    const open = await listo.db.select<
      Pick<TicketRecord, 'number' | 'teamId' | 'priority' | 'state' | 'via'>
    >(
      "SELECT number, teamId, priority, state, via FROM tickets WHERE teamId = :teamId AND state IN ('received', 'inWork') LIMIT :most",
      { teamId: team.id, most: MOST },
      tx,
    );
    await followHours({ listo, tx }, open, { isArriving: false });
    await setClosing({ listo, tx }, team);
  }
};
