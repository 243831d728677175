import { parseDuration } from '../../core/calendar';
import type { TicketRecord } from '../tickets/model';
import type { ApprovalRow, AskRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

type Listened = Pick<AskRow, 'id' | 'silentSince'> & Pick<ApprovalRow, 'silence'>;

/** Looks at an ask again once nothing has been said for as long as its step allows, on the hours of the ticket's team. */
export async function listenFor(
  { listo, tx }: UnitOfWork,
  { number, teamId }: Pick<TicketRecord, 'number' | 'teamId'>,
  { id, silence, silentSince }: Listened,
): Promise<void> {
  if (!silence || silentSince === null) return;
  const team = await listo.db.tables.teams.findOne({ id: teamId }, tx);
  const calendar = (await listo.calendars.getAll(tx))[team?.calendarId ?? ''];
  if (!calendar) return;
  const at = calendar.addWorking(silentSince, parseDuration(silence.after, calendar.spec));
  await listo.db.tables.timers.remove({ ticketNumber: number, kind: 'askSilent', ref: id }, tx);
  await listo.db.tables.timers.insert({ ticketNumber: number, kind: 'askSilent', ref: id, at }, tx);
}
