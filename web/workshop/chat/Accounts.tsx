import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from '../Workshop.module.css';

const Number = ({ number }: { number: number | null }) =>
  number === null ? null : <Link to={`/desk/everything/${number}`}>{number}</Link>;

function Part({
  title,
  isEmpty,
  error,
  children,
}: {
  title: string;
  isEmpty: boolean;
  error: unknown;
  children: ReactNode;
}) {
  const { t } = useWords();
  return (
    <section className={classes.section}>
      <h2>{title}</h2>
      <ProblemNote error={error} />
      {isEmpty ? (
        <p>{t('rooms/setUp/nothingYet')}</p>
      ) : (
        <Table>
          <Table.Thead>
            <Table.Tr>
              {['when', 'room', 'said', 'became'].map((name) => (
                <Table.Th key={name}>{t(`rooms/setUp/${name}`)}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>{children}</Table.Tbody>
        </Table>
      )}
    </section>
  );
}

/** What came from the chat and what went there, each accounted for. */
export function Accounts() {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(30_000);
  const came = useQuery({ queryKey: ['chatIn'], queryFn: () => call(api.chat.in) });
  const went = useQuery({ queryKey: ['chatOut'], queryFn: () => call(api.chat.out) });
  return (
    <>
      <Part title={t('rooms/setUp/in')} isEmpty={came.data?.length === 0} error={came.error}>
        {came.data?.map(({ id, at, room, text, type, outcome, detail, ticketNumber }) => (
          <Table.Tr key={id}>
            <Table.Td>{times.when(at, now)}</Table.Td>
            <Table.Td>{room}</Table.Td>
            <Table.Td>
              <bdi>{text || type}</bdi>
            </Table.Td>
            <Table.Td>
              {t(outcome === null ? 'rooms/setUp/states/waiting' : `rooms/setUp/outcomes/${outcome}`)}{' '}
              <Number number={ticketNumber} />
              {detail && <small className={classes.small}>{detail}</small>}
            </Table.Td>
          </Table.Tr>
        ))}
      </Part>
      <Part title={t('rooms/setUp/out')} isEmpty={went.data?.length === 0} error={went.error}>
        {went.data?.map(({ id, at, room, kind, state, error, ticketNumber }) => (
          <Table.Tr key={id}>
            <Table.Td>{times.when(at, now)}</Table.Td>
            <Table.Td>{room}</Table.Td>
            <Table.Td>
              {t(`rooms/setUp/kinds/${kind}`)} <Number number={ticketNumber} />
            </Table.Td>
            <Table.Td>
              {t(`rooms/setUp/states/${state}`)}
              {error && <small className={classes.small}>{error}</small>}
            </Table.Td>
          </Table.Tr>
        ))}
      </Part>
    </>
  );
}
