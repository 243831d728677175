import { useQuery } from '@tanstack/react-query';
import { Link, useLocation } from 'react-router';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import '../../messages/talkWords';
import { useWords } from '../../messages/useWords';
import classes from './PersonLink.module.css';

/** The way to a person, on every page of Ask. */
export function PersonLink() {
  const { t } = useWords();
  const { pathname } = useLocation();
  const { data } = useQuery({
    queryKey: ['myConversation'],
    staleTime: 60_000,
    queryFn: () => call(api.conversations.mine),
  });
  if (!pathname.startsWith('/ask') || pathname === '/ask/person') return null;
  return (
    <Link className={classes.link} to="/ask/person" state={{ from: pathname }}>
      {t(data?.id ? 'talk/yours' : 'talk/ask')}
    </Link>
  );
}
