import { isOpen, toHistory } from '../../core/tickets';
import { listNotices, tightestDue, type Calendars } from '../../core/targets';
import type { JournalRow } from '../journal/model';
import { NOTHING_DUE, type TicketRecord } from '../tickets/model';
import { editionFor, inEdition, NO_EDITIONS, type Editions } from './editions';
import type { ClockRow, TargetRow } from './model';
import { isGiven, toClockRow } from './settle';

/** The part of a journal's entry that clocks rest on. */
export type ClockEntry = Pick<JournalRow, 'ticketNumber' | 'work' | 'at' | 'changes'>;
export type ClockOwner = Pick<
  TicketRecord,
  'number' | 'state' | 'dueAt' | 'progressFinishedAt' | 'tightestDueAt'
>;
export type Settled = { clocks: ClockRow[]; tightestDueAt: number };

export type Settling = {
  targets: TargetRow[];
  calendars: Calendars;
  now: number;
  /** Former editions of promises, for the clocks that still run by them. */
  editions?: Editions;
  /** The promises whose known clocks alone are read; those of others stay as they are known. Absent: all that can be. */
  only?: ReadonlySet<string> | undefined;
};

/** Rows by what they have in common, each group in their order. */
export function groupBy<Row, Key>(rows: Row[], keyOf: (row: Row) => Key): Map<Key, Row[]> {
  const groups = new Map<Key, Row[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group) group.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return groups;
}

/** Reads the clocks of a ticket and of what belongs to it. Clocks that never started are left out. */
export function settleTicket(
  ticket: ClockOwner,
  { entries, known }: { entries: ClockEntry[]; known: ClockRow[] },
  { targets, calendars, now, editions = NO_EDITIONS, only }: Settling,
): Settled {
  const clocks: ClockRow[] = [];
  for (const [work, own] of groupBy(entries, (entry) => entry.work)) {
    const history = toHistory(own, work);
    // What has been recorded has happened, also where this machine's clock is behind another's.
    const readAt = Math.max(now, own.at(-1)!.at);
    for (const latest of targets) {
      const before = known.find((clock) => clock.targetId === latest.id && clock.work === work);
      if (only && !(before && only.has(latest.id))) continue;
      const edition = before?.edition ?? editionFor(latest, own[0]!.at);
      // It is a promise for what is opened from now on.
      if (edition === 0) continue;
      const target = inEdition(latest, edition, editions);
      const { clock, reading } = toClockRow(target, calendars, { history, now: readAt });
      if (clock.state === 'notStarted' && !before) continue;
      const fired = before?.fired ?? [];
      const { countedFrom, calendarId } = clock;
      const notices = listNotices(target.definition, calendars, { reading, calendarId, readAt });
      const owed = notices.filter((notice) => !isGiven(notice, { fired, countedFrom }, readAt));
      const nextAt = owed[0]?.[1] ?? null;
      clocks.push(Object.assign(clock, { ticketNumber: ticket.number, work, edition, fired, owed, nextAt }));
    }
  }
  const isInUse = ({ targetId }: ClockRow): boolean => targets.some(({ id }) => id === targetId);
  const kept = only ? known.filter((clock) => !only.has(clock.targetId) && isInUse(clock)) : [];
  const promised = tightestDue([...clocks, ...kept].filter(({ work }) => work === 'ticket')) ?? NOTHING_DUE;
  const isAwaited = isOpen(ticket.state) && ticket.progressFinishedAt === null;
  const byHand = isAwaited ? (ticket.dueAt ?? NOTHING_DUE) : NOTHING_DUE;
  // A promise that was switched off owes no word.
  const silenced = known.filter((clock) => !isInUse(clock) && clock.nextAt !== null);
  clocks.push(...silenced.map((clock) => ({ ...clock, owed: [], nextAt: null })));
  return { clocks, tightestDueAt: Math.min(promised, byHand) };
}
