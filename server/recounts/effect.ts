import { compileCalendar, type CalendarSpec } from '../../core/calendar';
import type { Viewer } from '../../core/rights';
import { isGoing, standingOf, type TargetDefinition } from '../../core/targets';
import { settleTicket } from '../clocks/ticketClocks';
import { readEditions, toNewTarget } from '../clocks/editions';
import type { ClockRow, TargetRow } from '../clocks/model';
import { listTargets } from '../clocks/read';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';
import { visibleTo } from '../tickets/visibility';

/** A change that is looked at before it is made. */
export type Change = {
  calendars?: Record<string, CalendarSpec>;
  targets?: { id: string; definition: TargetDefinition }[];
};

/** What a change would do to the clocks that are going. */
export type Effect = {
  tickets: number;
  moved: number;
  /** Tickets that would be late by it and are not, and the other way round; at most so many are listed. */
  becomeLate: {
    number: number;
    title: string;
    target: string;
    dueBefore: number | null;
    dueAfter: number | null;
  }[];
  late: number;
  noLongerLate: number;
};

const CHUNK = 500;
const LISTED = 50;

/**
 * Reads the clocks of open work under the change, writing nothing: of the tickets that the viewer may read, as numbers
 * tell of what they are reckoned from.
 */
export async function readEffect(
  listo: Listo,
  viewer: Viewer,
  { calendars = {}, targets = [] }: Change,
): Promise<Effect> {
  const { db, clock } = listo;
  const now = clock.now();
  const editions = await readEditions(listo);
  const today = {
    targets: await listTargets(listo),
    calendars: await listo.calendars.getAll(),
    now,
    editions,
  };
  const isChanged = ({ targetId }: { targetId: string }): boolean =>
    targets.some(({ id }) => id === targetId);
  const changed = {
    ...{ now, editions },
    targets: [
      ...today.targets.map((target): TargetRow => {
        const other = targets.find(({ id }) => id === target.id);
        return other ? { ...target, definition: other.definition, newFrom: null } : target;
      }),
      ...targets
        .filter(({ id }) => !today.targets.some((target) => target.id === id))
        .map((added) => toNewTarget(added, null)),
    ],
    calendars: {
      ...today.calendars,
      ...Object.fromEntries(Object.entries(calendars).map(([id, spec]) => [id, compileCalendar(spec)])),
    },
  };
  const effect: Effect = { tickets: 0, moved: 0, becomeLate: [], late: 0, noLongerLate: 0 };
  const visible = visibleTo(viewer);
  for (let after = 0; ;) {
    const tickets = await db.select<TicketRecord>(
      `SELECT t.number, t.title, t.state, t.dueAt, t.progressFinishedAt, t.tightestDueAt FROM tickets t WHERE t.number > :after
       AND t.state IN ('received', 'inWork', 'held') AND ${visible.sql} ORDER BY t.number LIMIT :limit`,
      { ...visible.values, after, limit: CHUNK },
    );
    if (tickets.length === 0) return effect;
    after = tickets.at(-1)!.number;
    const entries = await db.select<JournalRow>(
      "SELECT ticketNumber, work, at, changes FROM journal WHERE ticketNumber IN (:numbers) AND changes <> '{}' ORDER BY id",
      { numbers: tickets.map(({ number }) => number) },
    );
    const clocks = await db.select<ClockRow>('SELECT * FROM clocks WHERE ticketNumber IN (:numbers)', {
      numbers: tickets.map(({ number }) => number),
    });
    for (const ticket of tickets) {
      const own = entries.filter(({ ticketNumber }) => ticketNumber === ticket.number);
      const known = clocks.filter(({ ticketNumber }) => ticketNumber === ticket.number);
      // Each runs by the edition that it has; by the changed promise all do.
      const kept = known.filter((clock) => !isChanged(clock));
      compare(effect, ticket, {
        before: settleTicket(ticket, { entries: own, known }, today).clocks,
        after: settleTicket(ticket, { entries: own, known: kept }, changed).clocks,
        targets: changed.targets,
        now,
      });
    }
  }
}

function compare(
  effect: Effect,
  { number, title }: TicketRecord,
  {
    before,
    after,
    targets,
    now,
  }: { before: ClockRow[]; after: ClockRow[]; targets: TargetRow[]; now: number },
): void {
  effect.tickets++;
  const isLate = (clock: ClockRow | undefined): boolean =>
    clock !== undefined && isGoing(clock) && standingOf(clock, now) === 'missed';
  for (const clock of after.filter(isGoing)) {
    const was = before.find(({ work, targetId }) => work === clock.work && targetId === clock.targetId);
    if (was?.dueAt !== clock.dueAt) effect.moved++;
    if (isLate(was) && !isLate(clock)) effect.noLongerLate++;
    if (isLate(was) || !isLate(clock)) continue;
    effect.late++;
    if (effect.becomeLate.length < LISTED)
      effect.becomeLate.push({
        ...{ number, title, dueBefore: was?.dueAt ?? null, dueAfter: clock.dueAt },
        target: targets.find(({ id }) => id === clock.targetId)!.definition.name,
      });
  }
}
