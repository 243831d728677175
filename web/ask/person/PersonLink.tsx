import { useQuery } from '@tanstack/react-query';
import { Link, useLocation } from 'react-router';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import '../../messages/talkWords';
import { useWords } from '../../messages/useWords';
import { readSoFar } from '../../talk/unread';
import { useConversationsLive } from '../../talk/useConversation';
import { useCountInTitle } from '../../ui/useCountInTitle';
import classes from './PersonLink.module.css';

/** As long as one is in a conversation, what is said there is known on every page. */
function Follow() {
  useConversationsLive(false);
  return null;
}

/** The way to a person, at the head of every page of Ask; it says when one has written. */
export function PersonLink() {
  const { t } = useWords();
  const { pathname } = useLocation();
  const { data } = useQuery({
    queryKey: ['myConversation'],
    staleTime: 60_000,
    queryFn: () => call(api.conversations.mine),
  });
  const isThere = pathname === '/ask/person';
  const isShown = pathname.startsWith('/ask') && !isThere;
  const id = data?.id ?? null;
  const unread = data && id !== null && !isThere ? Math.max(0, data.said - readSoFar(id)) : 0;
  useCountInTitle(unread);
  return (
    <>
      {id !== null && !isThere && <Follow />}
      {isShown && data && (data.hasLines || id !== null) && (
        <p className={classes.strip} role="status">
          <Link
            className={classes.link}
            data-unread={unread > 0 || undefined}
            to="/ask/person"
            state={{ from: pathname }}
          >
            {unread > 0
              ? t('talk/hasWritten', { name: data.agent ?? 'Listo', count: unread })
              : t(id === null ? 'talk/ask' : 'talk/yours')}
          </Link>
        </p>
      )}
    </>
  );
}
