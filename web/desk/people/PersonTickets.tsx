import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { AnswerOf } from '../../../contract/endpoint';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import '../../messages/listsWords';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';
import classes from './PersonTickets.module.css';

type Card = AnswerOf<typeof api.people.card>;

/** Who someone is, for those who help them. */
export const usePersonCard = (id: string | null) =>
  useQuery({
    queryKey: ['person', id],
    enabled: id !== null,
    queryFn: () => call(api.people.card, { params: { id: id! } }),
  });

/** What someone has open, and what happened before, as they rated it. */
export function PersonTickets({ tickets }: Pick<Card, 'tickets'>) {
  const { t } = useWords();
  const times = useTimes();
  return (
    <ul className={classes.tickets}>
      {tickets.map(({ number, title, state, createdAt, rating }) => (
        <li key={number}>
          <Link to={`/desk/everything/${number}`}>
            {number} <bdi>{title}</bdi>
          </Link>
          <small>
            {t(`states/${state}`)} · {times.day(createdAt)}
            {rating !== null && ` · ${t('raise/rated', { rating })}`}
          </small>
        </li>
      ))}
    </ul>
  );
}
