import { useEffect, useRef } from 'react';
import type { Entry, Ticket } from '../../../contract/tickets';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { getPromise } from '../../ui/clocks';
import { filesOf } from '../../files/filesOf';
import { Writing } from '../../words/Writing';
import { AnswerValue } from '../../ui/AnswerValue';
import { MessageBody } from '../../thread/MessageBody';
import { useDelayWords, useEntryWords } from '../../ui/useEntryWords';
import { useTimes } from '../../ui/useTimes';
import classes from './DeskTicket.module.css';
import { Contained } from '../../ui/Contained';
import { isPutBack, PutBack } from './PutBack';

type Mode = 'burnt' | 'held' | 'none';

/** What the promise's clock did in the stretch that begins with an entry. */
export function modeBetween(from: number, to: number, ticket: Pick<Ticket, 'clocks'>): Mode {
  const clock = getPromise(ticket.clocks);
  const middle = (from + to) / 2;
  if (!clock || clock.countedFrom === null || middle < clock.countedFrom) return 'none';
  if (clock.stoppedAt !== null && middle > clock.stoppedAt) return 'none';
  return clock.held.some(([start, end]) => middle >= start && (end === null || middle < end))
    ? 'held'
    : 'burnt';
}

/** Words that were sent, by whom and for whom. */
function Words({ entry, ticket }: { entry: Entry; ticket: Ticket }) {
  const { t } = useWords();
  const me = useMe();
  const wordsOf = useEntryWords(me.id);
  const delayOf = useDelayWords();
  const { message, actor, via, type } = entry;
  if (!message) return null;
  const kind = message.readBy === 'team' ? 'note' : message.isByTeam ? 'answer' : 'requester';
  const readers =
    message.readBy === 'team'
      ? t('ticket/byTeam')
      : message.isByTeam
        ? t('ticket/readBy', { who: ticket.requester.name })
        : null;
  const parts = [
    t('entries/via', { door: t(`doors/${via}`) }),
    readers,
    type === 'answered' || type === 'noted' ? null : wordsOf(entry),
    delayOf(entry),
  ];
  return (
    <div className={classes.content} data-team={message.isByTeam || undefined}>
      <div className={classes.who}>
        <b>{actor?.id === me.id ? t('common/you') : actor?.name}</b> · {parts.filter(Boolean).join(' · ')}
      </div>
      <div className={classes.words} data-kind={kind}>
        <MessageBody
          {...{ message, files: filesOf(ticket) }}
          base="/desk/everything"
          {...(ticket.rights.includes('note') && entry.from === null && { number: ticket.number })}
        />
      </div>
    </div>
  );
}

/** What the request says, as the requester's first words. */
function Opening({ entry, ticket }: { entry: Entry; ticket: Ticket }) {
  const { t } = useWords();
  const words = ticket.answers.filter(({ field }) => field.kind === 'longText');
  const { requester, raisedBy } = ticket;
  return (
    <div className={classes.content}>
      <div className={classes.who}>
        <b>{requester.name}</b> · {requester.site} · {t('entries/via', { door: t(`doors/${entry.via}`) })}
        {raisedBy && ` · ${raisedBy.name}`}
      </div>
      <div className={classes.words}>
        {words.length > 0 ? (
          words.map((answer) => <AnswerValue key={answer.field.name} answer={answer} />)
        ) : (
          <bdi>{ticket.title}</bdi>
        )}
      </div>
    </div>
  );
}

/** Everything that happened, hung on the upright fuse at its hour. */
export function Thread({ ticket, now }: { ticket: Ticket; now: number }) {
  const times = useTimes();
  const me = useMe();
  const wordsOf = useEntryWords(me.id);
  const end = useRef<HTMLDivElement>(null);
  const entries = ticket.entries.filter((entry) => entry.message !== null || wordsOf(entry) !== null);
  useEffect(() => {
    end.current?.scrollIntoView({ block: 'nearest' });
  }, [entries.length]);
  const clock = getPromise(ticket.clocks);
  const isGoing = clock?.state === 'running' || clock?.state === 'paused';
  /** The day stands where it begins; today goes without saying. */
  const dayOf = (i: number): string | null => {
    const day = times.day(entries[i]!.at);
    const before = i === 0 ? times.day(now) : times.day(entries[i - 1]!.at);
    return day === before ? null : day;
  };
  return (
    <>
      <ol className={classes.thread}>
        {entries.map((entry, i) => (
          <li key={entry.id} className={classes.entry}>
            <span className={classes.at} title={times.full(entry.at)}>
              {dayOf(i) && <b>{dayOf(i)}</b>}
              {times.hour(entry.at)}
            </span>
            <span
              className={classes.bar}
              data-mode={modeBetween(entry.at, entries[i + 1]?.at ?? now, ticket)}
            />
            <Contained>
              {entry.type === 'sent' && entry.from === null ? (
                <Opening entry={entry} ticket={ticket} />
              ) : entry.message ? (
                <Words entry={entry} ticket={ticket} />
              ) : (
                <div className={classes.content}>
                  <span className={classes.event}>{wordsOf(entry)}</span>
                  {isPutBack(entry, ticket) && <PutBack entry={entry} number={ticket.number} />}
                </div>
              )}
            </Contained>
          </li>
        ))}
      </ol>
      <div className={classes.nowRow} ref={end}>
        <span className={classes.nowAt}>{times.hour(now)}</span>
        <span
          className={`${classes.bar} ${classes.nowBar}`}
          data-mode={isGoing && clock.dueAt !== null && clock.dueAt > now ? 'left' : 'none'}
        />
        <Writing number={ticket.number} />
      </div>
    </>
  );
}
