import { Link } from 'react-router';
import type { RoomMessage } from '../../contract/rooms';
import { readLive, type KeptClock } from '../../core/targets';
import { useCalendars } from '../api/calendars';
import { useNow } from '../api/clock';
import { useLeftWords } from '../ui/useLeftWords';
import { Acts } from './Acts';
import classes from './Rooms.module.css';

/** How much is left of a ticket's clock, in its working time as on the Desk; runs on while it is looked at. */
export function Due({ clock }: { clock: KeptClock & { calendarId: string | null } }) {
  const words = useLeftWords();
  const calendars = useCalendars();
  const now = useNow(30_000, clock.dueAt ?? undefined);
  const live = readLive(clock, calendars?.[clock.calendarId ?? ''], now);
  return (
    <span className={classes.due} data-tone={live.tone}>
      {words(live)}
    </span>
  );
}

/** Addresses of this application lead there without a new page. */
export const toPath = (link: string): string => {
  const url = new URL(link, window.location.href);
  return url.pathname + url.search;
};

type Props = { message: RoomMessage; isActing: boolean; onAct(action: string): void };

/** A ticket as it stands now, with what one can do about it. */
export function Card({ message, isActing, onAct }: Props) {
  const { card } = message;
  if (!card) return null;
  const { number, title, facts, clock, isOver, link, actions } = card;
  return (
    <div className={classes.card} data-over={isOver}>
      <p>
        <Link to={toPath(link)}>
          <b>
            <bdi>{title}</bdi>
          </b>{' '}
          <span className={classes.number}>{number}</span>
        </Link>
        {clock && !isOver && <Due clock={clock} />}
      </p>
      <p className={classes.facts}>
        <bdi>{facts}</bdi>
      </p>
      <Acts {...{ actions, isActing, onAct }} />
    </div>
  );
}
