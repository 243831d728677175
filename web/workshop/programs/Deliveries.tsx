import { Button, Code, Drawer, Group, SegmentedControl, Text } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { DeliveryView, WebhookView } from '../../../contract/webhooks';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { useDeliveries, useRenewPrograms, type DeliveryFilter } from './usePrograms';

const FILTERS: DeliveryFilter[] = ['all', 'waiting', 'undelivered', 'delivered'];

/** A message as it was sent, and how its receiver answered. */
function Message({ id, answer }: { id: number; answer: string | null }) {
  const { t } = useWords();
  const { data, error } = useQuery({
    queryKey: ['programs', 'delivery', id],
    queryFn: () => call(api.webhooks.delivery, { params: { id } }),
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Waiting />;
  return (
    <>
      <Text size="xs">{t('programs/deliveries/body')}</Text>
      <Code block>{JSON.stringify(JSON.parse(data.body), null, 2)}</Code>
      {answer && (
        <>
          <Text size="xs">{t('programs/deliveries/answer')}</Text>
          <Code block>{answer}</Code>
        </>
      )}
    </>
  );
}

function Row({ delivery, onAgain }: { delivery: DeliveryView; onAgain(): void }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(5_000);
  const [isOpen, setOpen] = useState(false);
  const { id, type, ticketNumber, state, tries, at, nextAt, status, answer } = delivery;
  const said = [
    `${t(`programs/deliveries/states/${state}`)}${status === null ? '' : ` (${status})`}`,
    ...(tries > 0 ? [t('programs/deliveries/tries', { count: tries })] : []),
    ...(state === 'waiting' && nextAt > now
      ? [t('programs/deliveries/next', { when: times.when(nextAt, now) })]
      : []),
  ];
  return (
    <li className={classes.item}>
      <details onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
        <summary>
          <code>{type}</code> {t('programs/deliveries/ticket', { number: ticketNumber })},{' '}
          {times.when(at, now)}: {said.join(', ')}
        </summary>
        {isOpen && <Message id={id} answer={answer} />}
        {state !== 'waiting' && (
          <Button size="compact-sm" variant="default" mt={6} onClick={onAgain}>
            {t('programs/deliveries/again')}
          </Button>
        )}
      </details>
    </li>
  );
}

/** The messages to a webhook: how each fares, what it said, and sending it once more. */
export function Deliveries({ webhook, onClose }: { webhook: WebhookView; onClose(): void }) {
  const { t } = useWords();
  const renew = useRenewPrograms();
  const [filter, setFilter] = useState<DeliveryFilter>(webhook.undelivered > 0 ? 'undelivered' : 'all');
  const { data, error, isPending, hasNextPage, fetchNextPage, refetch } = useDeliveries(webhook.id, filter);
  const again = useMutation({
    mutationFn: (id: number | null) =>
      id === null
        ? call(api.webhooks.sendAllAgain, { params: { id: webhook.id } })
        : call(api.webhooks.sendAgain, { params: { id } }),
    onSuccess: ({ count }) => notifications.show({ message: t('programs/deliveries/inLine', { count }) }),
    onSettled: renew,
  });
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <Drawer
      {...{ opened: true, onClose, position: 'right', size: 'xl' }}
      title={t('programs/hooks/lookThis', { name: webhook.name })}
      closeButtonProps={{ 'aria-label': t('common/close') }}
    >
      <Group justify="space-between">
        <SegmentedControl
          size="xs"
          aria-label={t('programs/deliveries/only')}
          value={filter}
          data={FILTERS.map((value) => ({ value, label: t(`programs/deliveries/states/${value}`) }))}
          onChange={(value) => setFilter(value)}
        />
        {filter === 'undelivered' && rows.length > 0 && (
          <Button size="xs" loading={again.isPending} onClick={() => again.mutate(null)}>
            {t('programs/deliveries/allAgain')}
          </Button>
        )}
      </Group>
      <ProblemNote error={error ?? again.error} onRetry={() => void refetch()} />
      {isPending && <Waiting />}
      {data && rows.length === 0 && <p>{t('programs/deliveries/none')}</p>}
      <ul className={classes.items}>
        {rows.map((delivery) => (
          <Row key={delivery.id} delivery={delivery} onAgain={() => again.mutate(delivery.id)} />
        ))}
      </ul>
      {hasNextPage && (
        <Button size="xs" variant="default" onClick={() => void fetchNextPage()}>
          {t('programs/deliveries/older')}
        </Button>
      )}
    </Drawer>
  );
}
