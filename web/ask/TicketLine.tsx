import { Link } from 'react-router';
import type { TicketRow } from '../../contract/tickets';
import { useWords } from '../messages/useWords';
import classes from './home/Home.module.css';
import { usePromise, useSentence } from './useSentence';

/** A ticket of one's own in a line: what it is, who must move, promised when. */
export function TicketLine({ ticket }: { ticket: TicketRow }) {
  const { local } = useWords();
  const sentenceOf = useSentence();
  const { words, isLate } = usePromise()(ticket);
  return (
    <Link className={classes.row} to={`/ask/tickets/${ticket.number}`} data-late={isLate || undefined}>
      <strong>
        <bdi>{ticket.title}</bdi>
      </strong>
      <span>
        {sentenceOf(ticket)}
        {ticket.progress && ` · ${local(ticket.progress.name)}`}
      </span>
      <small>{words}</small>
    </Link>
  );
}
