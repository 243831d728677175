import type { ReaderNotice } from '../../contract/notices';
import { useWords } from '../messages/useWords';
import { createTimes } from '../ui/times';
import classes from './Open.module.css';

type Open = Omit<ReaderNotice, 'isFollowed' | 'ownTicket' | 'fit' | 'followers'>;

/** A notice on a page that is read by nobody in particular: in the zone of the browser. */
export function NoticeWords({ notice }: { notice: Open }) {
  const { t, local, language } = useWords();
  const times = createTimes({ timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone, language, t });
  const now = Date.now();
  const { state, kind, fromAt, untilAt, endedAt, updates, isLonger } = notice;
  const isOver = state === 'ended';
  const stretch = isOver
    ? t('known/over', { when: times.when(endedAt ?? fromAt, now) })
    : [
        kind === 'planned' ? times.when(fromAt, now) : t('known/since', { when: times.when(fromAt, now) }),
        isLonger
          ? t('known/longer')
          : untilAt !== null &&
            t(kind === 'planned' ? 'known/until' : 'known/thought', { when: times.when(untilAt, now) }),
      ]
        .filter(Boolean)
        .join(', ');
  const [newest] = updates;
  return (
    <article className={classes.notice} data-state={state}>
      <p className={classes.what}>
        <b>{t(isOver ? 'known/ended' : kind === 'planned' ? 'known/coming' : 'known/on')}</b> · {stretch}
      </p>
      <h2>
        <bdi>{local(notice.title)}</bdi>
      </h2>
      {newest && (
        <p>
          {times.when(newest.at, now)}: <bdi>{local(newest.words)}</bdi>
        </p>
      )}
      {!isOver && local(notice.words) !== '' && (
        <p>
          <bdi>{local(notice.words)}</bdi>
        </p>
      )}
    </article>
  );
}
