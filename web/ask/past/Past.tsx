import { Button, Text } from '@mantine/core';
import { Link } from 'react-router';
import { useMyTickets } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Waiting } from '../../ui/Waiting';
import classes from '../home/Home.module.css';
import { TicketLine } from '../TicketLine';

/** What one asked for before. */
export function Past() {
  const { t } = useWords();
  const { data, isPending, hasNextPage, fetchNextPage } = useMyTickets('past');
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <div className={classes.page}>
      <Link to="/ask">{t('common/back')}</Link>
      <h1 className={classes.title}>{t('ask/pastTitle')}</h1>
      {isPending && <Waiting />}
      {data && rows.length === 0 && <Text c="dimmed">{t('ask/noPast')}</Text>}
      {rows.map((ticket) => (
        <TicketLine key={ticket.number} ticket={ticket} />
      ))}
      {hasNextPage && (
        <Button mt="sm" variant="default" onClick={() => void fetchNextPage()}>
          {t('common/more')}
        </Button>
      )}
    </div>
  );
}
