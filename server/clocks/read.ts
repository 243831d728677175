import type { Clock } from '../../contract/clocks';
import { toHistory } from '../../core/tickets';
import { reckonClock, replayClock, type HistoryEvent } from '../../core/targets';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { inEdition, readEditions } from './editions';
import type { ClockRow, TargetRow } from './model';

/** The targets in use, in their order. */
export function listTargets(listo: Listo): Promise<TargetRow[]> {
  return listo.db.tables.targets.find({ isOn: true }, { order: ['position'] });
}

/** A stored clock as pages read it. */
export function toClock(row: ClockRow, target: TargetRow): Clock {
  const { targetId, state, countedFrom, elapsed, limit, dueAt, breachedAt, stoppedAt, calendarId, held } =
    row;
  const { name, kind } = target.definition;
  return {
    targetId,
    work: row.work,
    name,
    kind,
    measures: target.measures,
    state,
    countedFrom,
    elapsed,
    limit,
    dueAt,
    breachedAt,
    stoppedAt,
    calendarId,
    held,
  };
}

/**
 * The clocks of some tickets, by number, in the targets' order; with `all` those of their approvals too. Clocks that
 * never started are left out.
 */
export async function readClocks(
  listo: Listo,
  numbers: number[],
  { all = false } = {},
): Promise<Map<number, Clock[]>> {
  const byNumber = new Map<number, Clock[]>(numbers.map((number) => [number, []]));
  if (numbers.length === 0) return byNumber;
  const [targets, rows] = await Promise.all([
    listTargets(listo),
    listo.db.tables.clocks.find({ ticketNumber: numbers }),
  ]);
  for (const target of targets)
    for (const row of rows)
      if (
        (all || row.work === 'ticket') &&
        row.targetId === target.id &&
        row.state !== 'notStarted' &&
        row.state !== 'cancelled'
      )
        byNumber.get(row.ticketNumber)!.push(toClock(row, target));
  return byNumber;
}

export async function readHistory(listo: Listo, number: number, work: string): Promise<HistoryEvent[]> {
  const entries = await listo.db.tables.journal.find({ ticketNumber: number, work }, { order: ['id'] });
  return toHistory(entries, work);
}

/** "Why this time?": the working of one clock, until now or its end. */
export async function readReckoning(
  listo: Listo,
  { number, work, targetId }: { number: number; work: string; targetId: string },
  isTeamSide: boolean,
) {
  const latest = await listo.db.tables.targets.findOne({ id: targetId });
  const clock = await listo.db.tables.clocks.findOne({ ticketNumber: number, work, targetId });
  const target = latest && inEdition(latest, clock?.edition ?? latest.edition, await readEditions(listo));
  if (!target || (!isTeamSide && target.definition.kind !== 'serviceLevel'))
    throw new ProblemError('notFound');
  const calendars = await listo.calendars.getAll();
  const history = await readHistory(listo, number, work);
  const now = listo.clock.now();
  const ended = replayClock(target.definition, calendars, history, now).reading.stoppedAt;
  const { reading, rows, plainElapsed } = reckonClock(target.definition, calendars, history, ended ?? now);
  const { limit, elapsed, percent, dueAt } = reading;
  return {
    name: target.definition.name,
    edition: target.edition,
    limit,
    elapsed,
    percent,
    dueAt,
    plainElapsed,
    rows: rows.map(({ calendarId, ...row }) => ({
      ...row,
      calendar: calendarId === null ? null : calendars[calendarId]!.spec.name,
    })),
  };
}
