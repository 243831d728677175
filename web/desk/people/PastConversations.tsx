import { Link } from 'react-router';
import type { PastConversation } from '../../../contract/conversations';
import '../../messages/listsWords';
import '../../messages/talkWords';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';

/** What someone talked about before, by how it began and how they found it. */
export function PastConversations({ conversations }: { conversations: PastConversation[] }) {
  const { t } = useWords();
  const times = useTimes();
  return (
    <ul>
      {conversations.map(({ id, at, words, ticketNumber, rating }) => (
        <li key={id}>
          <Link to={`/desk/conversations/${id}`}>{times.day(at)}</Link> <bdi>{words}</bdi>{' '}
          {ticketNumber !== null && <Link to={`/desk/everything/${ticketNumber}`}>{ticketNumber}</Link>}
          {rating !== null && <small> · {t('raise/rated', { rating })}</small>}
        </li>
      ))}
    </ul>
  );
}
