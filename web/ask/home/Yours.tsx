import { Button } from '@mantine/core';
import { Link } from 'react-router';
import { useMyTickets } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { TicketLine } from '../TicketLine';
import classes from './Home.module.css';

/** One's open tickets. */
export function Yours() {
  const { t } = useWords();
  const { data, error, isPending, refetch, hasNextPage, fetchNextPage } = useMyTickets('open');
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <>
      <h2 className={classes.section}>
        {t('ask/yours')}
        <Link to="/ask/past">{t('ask/past')}</Link>
      </h2>
      {isPending && <Waiting />}
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {data && rows.length === 0 && <p className={classes.quiet}>{t('ask/nothingYours')}</p>}
      {rows.map((ticket) => (
        <TicketLine key={ticket.number} ticket={ticket} />
      ))}
      {hasNextPage && (
        <Button mt="sm" variant="default" onClick={() => void fetchNextPage()}>
          {t('common/more')}
        </Button>
      )}
    </>
  );
}
