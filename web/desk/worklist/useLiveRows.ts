import { useMemo, useState } from 'react';
import type { ListRow } from '../../../contract/worklists';
import { useCalendars } from '../../api/calendars';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { readLive, tightestClock, type Tone } from '../../../core/targets';
import { liveOfStep } from './liveOfStep';
import type { LiveRow } from './Row';

const TICK_MS = 15_000;

/** Rows with their clocks as they stand now; renewed at the instant the next one falls due. */
export function useLiveRows(tickets: ListRow[]) {
  const me = useMe();
  const { local } = useWords();
  const calendars = useCalendars();
  const dues = useMemo(
    () => tickets.map(({ clocks, step }) => step?.neededBy ?? tightestClock(clocks)?.dueAt ?? Infinity),
    [tickets],
  );
  const [before, setBefore] = useState(0);
  const next = dues.reduce((least, due) => (due >= before && due < least ? due : least), Infinity);
  const now = useNow(TICK_MS, Number.isFinite(next) ? next : null);
  if (now > next && before <= next) setBefore(now);
  const mine = calendars?.[me.calendarId];
  const toLive = useMemo(() => {
    const known = new WeakMap<ListRow, LiveRow>();
    const read = (ticket: ListRow): LiveRow => {
      const { step, clocks } = ticket;
      if (step) return { ticket, live: liveOfStep(step, local(step.name), mine, now) };
      const clock = tightestClock(clocks);
      return { ticket, live: clock && readLive(clock, calendars?.[clock.calendarId ?? ''], now) };
    };
    /** The same row for a ticket that did not change, until time goes on. */
    return (ticket: ListRow): LiveRow => {
      const row = known.get(ticket) ?? read(ticket);
      known.set(ticket, row);
      return row;
    };
  }, [calendars, mine, local, now]);
  return { calendars, now, toLive };
}

/** When a row falls due next: by its running clock, or by what was set by hand if that is sooner. */
export function getNextDue({ ticket, live }: LiveRow): { at: number; tone: Tone } | null {
  const clock = live?.clock.state === 'running' ? live.clock.dueAt : null;
  const byHand =
    ticket.due && (ticket.due.standing === 'toCome' || ticket.due.standing === 'past') ? ticket.due : null;
  if (byHand && (clock === null || byHand.at < clock))
    return { at: byHand.at, tone: byHand.standing === 'past' ? 'past' : 'plenty' };
  return clock === null ? null : { at: clock, tone: live!.tone };
}
