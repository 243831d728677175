import { Button } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import type { ReaderNotice } from '../../contract/notices';
import { useNow } from '../api/clock';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import classes from './Bands.module.css';
import { useFollow, useMyNotices } from './useNotices';

/** What is typed is asked about once it rests for so long (ms). */
const SETTLE_MS = 250;

type Timed = Pick<ReaderNotice, 'kind' | 'state' | 'fromAt' | 'untilAt' | 'endedAt' | 'isLonger'>;

/** The stretch of a notice in words, as those read it whom it concerns. */
export function useStretchWords(): (notice: Timed) => string {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  return ({ kind, state, fromAt, untilAt, endedAt, isLonger }) => {
    const when = (at: number): string => times.when(at, now);
    if (state === 'ended') return t('known/over', { when: when(endedAt ?? fromAt) });
    const from = t('known/since', { when: when(fromAt) });
    if (isLonger) return `${from}. ${t('known/longer')}`;
    if (untilAt === null) return from;
    if (kind === 'planned') return `${when(fromAt)} ${t('known/until', { when: when(untilAt) })}`;
    return `${from}, ${t('known/thought', { when: when(untilAt) })}`;
  };
}

/** What a notice says, for everyone it concerns. */
export function NoticeWords({
  notice,
}: {
  notice: Omit<ReaderNotice, 'isFollowed' | 'ownTicket' | 'fit' | 'followers'>;
}) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const stretchOf = useStretchWords();
  const [newest, ...earlier] = notice.updates;
  const state =
    notice.state === 'coming' || notice.state === 'ended'
      ? notice.state
      : notice.kind === 'planned'
        ? 'coming'
        : 'on';
  return (
    <>
      <span className={classes.what}>
        <b>{t(`known/${state}`)}</b> · {stretchOf(notice)}
      </span>
      <h2>
        <bdi>{local(notice.title)}</bdi>
      </h2>
      {newest && (
        <p>
          {times.when(newest.at, now)}: <bdi>{local(newest.words)}</bdi>
        </p>
      )}
      {notice.state !== 'ended' && local(notice.words) !== '' && (
        <p>
          <bdi>{local(notice.words)}</bdi>
        </p>
      )}
      {earlier.length > 0 && (
        <details>
          <summary>{t('known/earlier')}</summary>
          <ul>
            {earlier.map(({ id, at, words }) => (
              <li key={id}>
                {times.when(at, now)}: <bdi>{local(words)}</bdi>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

/** A notice with what its reader can do about it: have it too instead of writing a ticket. */
function Band({ notice }: { notice: ReaderNotice }) {
  const { t } = useWords();
  const follow = useFollow();
  const { id, state, isFollowed, ownTicket, followers } = notice;
  const set = (to: boolean): void => follow.mutate({ id, isFollowed: to });
  return (
    <article className={classes.band} data-state={state} data-notice={id}>
      <NoticeWords notice={notice} />
      <div className={classes.acts}>
        {ownTicket !== null ? (
          <span>{t('known/ownTicket', { number: ownTicket })}</span>
        ) : state === 'ended' ? null : isFollowed ? (
          <>
            <span>{t('known/isFollowed')}</span>
            <Button size="compact-xs" variant="subtle" loading={follow.isPending} onClick={() => set(false)}>
              {t('known/unfollow')}
            </Button>
          </>
        ) : (
          <Button size="compact-sm" variant="default" loading={follow.isPending} onClick={() => set(true)}>
            {t('known/meToo')}
          </Button>
        )}
        {followers > 0 && <span>{t('known/others', { count: followers })}</span>}
      </div>
      <ProblemNote error={follow.error} />
    </article>
  );
}

/** The notices that concern one, above everything else; with words typed, those first that they are about. */
export function NoticeBands({ query = '', forPerson = null }: { query?: string; forPerson?: string | null }) {
  const { t } = useWords();
  const [q] = useDebouncedValue(query.trim().slice(0, 400), SETTLE_MS);
  const { data = [] } = useMyNotices({ q, for: forPerson });
  if (data.length === 0) return null;
  return (
    <section aria-label={t('known/title')} aria-live="polite">
      {data.map((notice) => (
        <Band key={notice.id} notice={notice} />
      ))}
    </section>
  );
}

/** The notices that what one writes at the form of a service is about: before it is sent, it may be known. */
export function FittingNotices({
  words,
  service,
  forPerson = null,
}: {
  words: string;
  service?: string;
  forPerson?: string | null;
}) {
  const { t } = useWords();
  const [q] = useDebouncedValue(words.trim().slice(0, 400), SETTLE_MS);
  const { data = [] } = useMyNotices({ q, service, for: forPerson });
  const fitting = data.filter(({ fit, state }) => fit > 0 && state !== 'ended');
  if (fitting.length === 0) return null;
  return (
    <section aria-label={t('known/title')} aria-live="polite">
      <p>{t('known/fits')}</p>
      {fitting.map((notice) => (
        <Band key={notice.id} notice={notice} />
      ))}
    </section>
  );
}
