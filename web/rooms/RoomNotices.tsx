import { Link } from 'react-router';
import { useWords } from '../messages/useWords';
import { useStretchWords } from '../notices/Bands';
import { useMyNotices } from '../notices/useNotices';
import classes from './Rooms.module.css';

/** What does not work for those who read here, in a line each; the rest stands on the first page of Ask. */
export function RoomNotices() {
  const { t, local } = useWords();
  const stretchOf = useStretchWords();
  const { data = [] } = useMyNotices();
  const on = data.filter(({ state }) => state === 'on');
  if (on.length === 0) return null;
  return (
    <div className={classes.notices} role="status">
      {on.map((notice) => (
        <p key={notice.id}>
          <b>{t('known/on')}:</b> <Link to="/ask">{local(notice.title)}</Link>{' '}
          <small>{stretchOf(notice)}</small>
        </p>
      ))}
    </div>
  );
}
