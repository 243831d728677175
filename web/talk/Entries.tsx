import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import type { Conversation, ConversationEntry } from '../../contract/conversations';
import { FileList } from '../files/FileList';
import { useMe } from '../api/queries';
import '../messages/talkWords';
import { useWords } from '../messages/useWords';
import { useTimes } from '../ui/useTimes';
import classes from './Talk.module.css';
import { useWriter } from './useConversation';

function Event({ entry, isAtDesk }: { entry: ConversationEntry; isAtDesk: boolean }) {
  const { t, local } = useWords();
  const { type, author, data } = entry;
  if (type === 'words') return null;
  const to = data.line ? local(data.line) : (data.to ?? data.who);
  // An offer is the agents' own affair.
  if (type === 'waiting' && entry.readBy === 'agents') return null;
  const words = t(`talk/entries/${type}`, {
    who: author?.name ?? 'Listo',
    to,
    number: data.number,
    name: data.name,
  });
  return (
    <li className={classes.event}>
      {type === 'ticket' ? (
        <Link to={`${isAtDesk ? '/desk/everything' : '/ask/tickets'}/${String(data.number)}`}>{words}</Link>
      ) : (
        words
      )}
    </li>
  );
}

/** What was said and what happened, in order; the latest is in sight. */
export function Entries({
  conversation,
  isAtDesk = false,
}: {
  conversation: Conversation;
  isAtDesk?: boolean;
}) {
  const { t } = useWords();
  const me = useMe();
  const times = useTimes();
  const writer = useWriter(conversation.id);
  const box = useRef<HTMLDivElement>(null);
  const last = conversation.entries.at(-1)?.place;
  useEffect(() => {
    const { current } = box;
    if (current) current.scrollTop = current.scrollHeight;
  }, [last]);
  return (
    <div className={classes.scroll} ref={box} tabIndex={0} role="region" aria-label={t('talk/yours')}>
      <ol className={classes.entries} aria-live="polite">
        {conversation.entries.map((entry) =>
          entry.type === 'words' ? (
            <li
              key={entry.place}
              className={classes.said}
              data-own={entry.author?.id === me.id}
              data-beside={entry.readBy === 'agents'}
            >
              <small>
                {entry.author?.id === me.id ? t('common/you') : entry.author?.name} · {times.hour(entry.at)}
                {entry.readBy === 'agents' && ` · ${t('talk/desk/toAgents')}`}
              </small>
              <bdi>{entry.text}</bdi>
              {entry.files.length > 0 && <FileList files={entry.files} />}
            </li>
          ) : (
            <Event key={entry.place} entry={entry} isAtDesk={isAtDesk} />
          ),
        )}
      </ol>
      <p role="status" className={classes.quiet}>
        {writer && (isAtDesk || writer.readBy === 'all') && t('talk/writing', { name: writer.name })}
      </p>
    </div>
  );
}
