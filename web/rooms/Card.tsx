import { Link } from 'react-router';
import type { RoomMessage } from '../../contract/rooms';
import { isPast, toneOfDue } from '../../core/due';
import { useNow } from '../api/clock';
import { useWords } from '../messages/useWords';
import { useTimes } from '../ui/useTimes';
import { Acts } from './Acts';
import classes from './Rooms.module.css';

const MINUTE = 60_000;

/** How long is left, or since when it is past due; runs on while it is looked at. */
export function Due({ dueAt }: { dueAt: number }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(30_000, dueAt);
  const isLate = isPast(dueAt, now);
  const isNear = toneOfDue(dueAt, dueAt - now, now) !== 'plenty';
  return (
    <span className={isLate ? classes.past : classes.due} data-near={isNear}>
      {t(isLate ? 'rooms/past' : 'rooms/left', { time: times.span(Math.abs(dueAt - now) / MINUTE) })}
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
  const { number, title, facts, dueAt, isOver, link, actions } = card;
  return (
    <div className={classes.card} data-over={isOver}>
      <p>
        <Link to={toPath(link)}>
          <b>
            <bdi>{title}</bdi>
          </b>{' '}
          <span className={classes.number}>{number}</span>
        </Link>
        {dueAt !== null && !isOver && <Due dueAt={dueAt} />}
      </p>
      <p className={classes.facts}>
        <bdi>{facts}</bdi>
      </p>
      <Acts {...{ actions, isActing, onAct }} />
    </div>
  );
}
