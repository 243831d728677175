import { Button, NativeSelect, Table } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { MailCame, MailWent } from '../../../contract/mail';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import { addMailWords } from '../../messages/mailWords';
import { mailEn } from '../../messages/mail.en';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';
import { Texts } from './Texts';

addMailWords();
const PAGE = 50;
const OUTCOMES = Object.keys(mailEn.outcomes);

function useMail(outcome: string) {
  const came = useInfiniteQuery({
    queryKey: ['mailIn', outcome],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      call(api.mail.in, { query: { before: pageParam, ...(outcome && { outcome }) } }),
    getNextPageParam: (last: MailCame[]) => (last.length === PAGE ? last.at(-1)!.at : undefined),
  });
  const went = useInfiniteQuery({
    queryKey: ['mailOut'],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) => call(api.mail.out, { query: { before: pageParam } }),
    getNextPageParam: (last: MailWent[]) => (last.length === PAGE ? last.at(-1)!.at : undefined),
  });
  return { came, went };
}

function Went({ mail }: { mail: MailWent }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(30_000);
  const client = useQueryClient();
  const retry = useMutation({
    mutationFn: () => call(api.mail.retry, { params: { id: mail.id } }),
    onSuccess: () => notifications.show({ message: t('mail/retried') }),
    onSettled: () => client.invalidateQueries({ queryKey: ['mailOut'] }),
  });
  return (
    <Table.Tr>
      <Table.Td>{times.when(mail.at, now)}</Table.Td>
      <Table.Td>{mail.to}</Table.Td>
      <Table.Td>
        <bdi>{mail.subject}</bdi>
        <small className={classes.small}>{t(`mail/templates/${mail.template}`)}</small>
      </Table.Td>
      <Table.Td>
        {t(`mail/states/${mail.state}`)}
        {mail.error && (
          <small className={classes.small}>
            {t('mail/tries', { count: mail.tries })}: {mail.error}
          </small>
        )}
        {mail.state !== 'sent' && mail.tries > 0 && (
          <Button size="compact-xs" variant="subtle" loading={retry.isPending} onClick={() => retry.mutate()}>
            {t('mail/retry')}
          </Button>
        )}
      </Table.Td>
    </Table.Tr>
  );
}

function Came({ mail }: { mail: MailCame }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(30_000);
  return (
    <Table.Tr>
      <Table.Td>{times.when(mail.at, now)}</Table.Td>
      <Table.Td>
        {mail.from}
        <small className={classes.small}>{mail.to}</small>
      </Table.Td>
      <Table.Td>
        <bdi>{mail.subject}</bdi>
      </Table.Td>
      <Table.Td>
        {t(`mail/outcomes/${mail.outcome}`)}{' '}
        {mail.ticketNumber !== null && (
          <Link to={`/desk/everything/${mail.ticketNumber}`}>{mail.ticketNumber}</Link>
        )}
        {mail.detail && <small className={classes.small}>{mail.detail}</small>}
      </Table.Td>
    </Table.Tr>
  );
}

function Heads({ names }: { names: string[] }) {
  const { t } = useWords();
  return (
    <Table.Thead>
      <Table.Tr>
        {names.map((name) => (
          <Table.Th key={name}>{t(`mail/${name}`)}</Table.Th>
        ))}
      </Table.Tr>
    </Table.Thead>
  );
}

/** What came in and went out by mail, and the texts of it. */
export function MailPage() {
  const { t } = useWords();
  const me = useMe();
  const [outcome, setOutcome] = useState('');
  const { came, went } = useMail(outcome);
  if (!me.isAdministrator) return <Lost />;
  const ins = came.data?.pages.flat() ?? [];
  const outs = went.data?.pages.flat() ?? [];
  return (
    <WorkshopFrame lead={t('mail/lead')}>
      <section className={classes.section}>
        <h2>{t('mail/came')}</h2>
        <NativeSelect
          w={320}
          size="xs"
          label={t('mail/only')}
          value={outcome}
          data={[
            { value: '', label: t('mail/all') },
            ...OUTCOMES.map((value) => ({ value, label: t(`mail/outcomes/${value}`) })),
          ]}
          onChange={({ target }) => setOutcome(target.value)}
        />
        {came.isPending && <Waiting />}
        <ProblemNote error={came.error} onRetry={() => void came.refetch()} />
        {came.data && ins.length === 0 && <p>{t('mail/nothingIn')}</p>}
        {ins.length > 0 && (
          <Table>
            <Heads names={['when', 'from', 'subject', 'became']} />
            <Table.Tbody>
              {ins.map((mail) => (
                <Came key={mail.id} mail={mail} />
              ))}
            </Table.Tbody>
          </Table>
        )}
        {came.hasNextPage && (
          <Button size="xs" variant="default" onClick={() => void came.fetchNextPage()}>
            {t('mail/older')}
          </Button>
        )}
      </section>
      <section className={classes.section}>
        <h2>{t('mail/went')}</h2>
        {went.isPending && <Waiting />}
        <ProblemNote error={went.error} onRetry={() => void went.refetch()} />
        {went.data && outs.length === 0 && <p>{t('mail/nothingOut')}</p>}
        {outs.length > 0 && (
          <Table>
            <Heads names={['when', 'to', 'subject', 'state']} />
            <Table.Tbody>
              {outs.map((mail) => (
                <Went key={mail.id} mail={mail} />
              ))}
            </Table.Tbody>
          </Table>
        )}
        {went.hasNextPage && (
          <Button size="xs" variant="default" onClick={() => void went.fetchNextPage()}>
            {t('mail/older')}
          </Button>
        )}
      </section>
      <section className={classes.section}>
        <h2>{t('mail/texts')}</h2>
        <Texts />
      </section>
    </WorkshopFrame>
  );
}
