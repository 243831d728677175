import { useState } from 'react';
import type { Clock } from '../../../contract/clocks';
import type { Ticket } from '../../../contract/tickets';
import { isGoing, readLive } from '../../../core/targets';
import { useCalendars } from '../../api/calendars';
import { useWords } from '../../messages/useWords';
import type { LiveClock } from '../../ui/clocks';
import { Reckoning } from '../../ui/Reckoning';
import { useTimes } from '../../ui/useTimes';
import classes from './DeskTicket.module.css';

/** What a clock says: left, used, met in, missed by. */
function useClockWords(): (live: LiveClock) => string {
  const { t } = useWords();
  const times = useTimes();
  return ({ clock, leftMinutes, usedMinutes, tone, hoursPerDay }) => {
    const used = times.span(usedMinutes ?? clock.elapsed / 60_000, hoursPerDay);
    if (clock.state === 'met') return t('page/metIn', { span: used });
    if (clock.state === 'missed') return t('page/missedBy', { span: used });
    if (leftMinutes === null && clock.dueAt !== null) return '…';
    if (leftMinutes === null) return t('page/used', { span: used });
    if (clock.state === 'paused') return t('desk/paused', { span: times.span(leftMinutes, hoursPerDay) });
    if (tone === 'past' && leftMinutes > -1) return t('time/dueNow');
    return tone === 'past'
      ? t('time/past', { span: times.span(Math.max(0, -leftMinutes), hoursPerDay) })
      : t('time/left', { span: times.span(leftMinutes, hoursPerDay) });
  };
}

/** The clocks of a ticket: left, used, since when, due, and how that was computed. */
export function Clocks({ ticket, now }: { ticket: Ticket; now: number }) {
  const { t } = useWords();
  const times = useTimes();
  const calendars = useCalendars();
  const wordsOf = useClockWords();
  const [shown, setShown] = useState<Clock | null>(null);
  if (ticket.clocks.length === 0) return null;
  const isMet = ({ state }: Clock): boolean => state === 'met';
  const met = ticket.clocks.filter(isMet);
  // What can still be kept stands before what was missed.
  const open = ticket.clocks
    .filter((clock) => !isMet(clock))
    .sort((one, other) => Number(isGoing(other)) - Number(isGoing(one)));
  const draw = (clock: Clock) => {
    const live = readLive(clock, calendars?.[clock.calendarId ?? ''], now);
    const { limitMinutes, usedMinutes, tone, hoursPerDay } = live;
    return (
      <div key={`${clock.work}|${clock.targetId}`} className={classes.clock}>
        <div className={classes.pair}>
          <span>
            {clock.name}
            {limitMinutes !== null &&
              ` · ${t('page/within', { span: times.span(limitMinutes, hoursPerDay) })}`}
          </span>
          <b data-tone={tone}>{wordsOf(live)}</b>
        </div>
        <small>
          {isGoing(clock) &&
            usedMinutes !== null &&
            `${t('page/used', { span: times.span(usedMinutes, hoursPerDay) })} · `}
          {isGoing(clock) &&
            clock.dueAt !== null &&
            `${t('ticket/due', { when: times.when(clock.dueAt, now) })} · `}
          <button
            type="button"
            className={classes.link}
            data-clock={clock.targetId}
            onClick={() => setShown(clock)}
          >
            {t('page/whyThisTime')}
          </button>
        </small>
      </div>
    );
  };
  return (
    <section>
      <h2>{t('page/clocks')}</h2>
      {open.map(draw)}
      {open.length === 0
        ? met.map(draw)
        : met.length > 0 && (
            <details>
              <summary className={classes.quiet}>{t('page/clocksMet', { count: met.length })}</summary>
              {met.map(draw)}
            </details>
          )}
      {shown && <Reckoning number={ticket.number} clock={shown} onClose={() => setShown(null)} />}
    </section>
  );
}
