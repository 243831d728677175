import { Alert, Anchor, Button, Code, Group, Switch, Text } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { ProgramView } from '../../../contract/programs';
import type { WebhookView } from '../../../contract/webhooks';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from '../Workshop.module.css';
import { Deliveries } from './Deliveries';
import { ShownOnce } from './ShownOnce';
import { useRenewPrograms, useWebhooks } from './usePrograms';
import { WebhookEditor } from './WebhookEditor';

/** How the messages to a webhook fare, in a line. */
function Fares({ webhook: { pausedUntil, waiting, undelivered } }: { webhook: WebhookView }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(5_000);
  const parts = [
    ...(waiting > 0 ? [t('programs/hooks/waiting', { count: waiting })] : []),
    ...(undelivered > 0 ? [t('programs/hooks/undelivered', { count: undelivered })] : []),
  ];
  return (
    <Text size="sm" c="var(--muted)">
      {parts.length > 0 ? parts.join(', ') : t('programs/hooks/allThere')}
      {pausedUntil !== null && pausedUntil > now && waiting > 0 && (
        <>. {t('programs/hooks/paused', { when: times.when(pausedUntil, now) })}</>
      )}
    </Text>
  );
}

function useWebhookActs(webhook: WebhookView) {
  const { t } = useWords();
  const renew = useRenewPrograms();
  const { id, version, name } = webhook;
  const params = { id };
  const turn = useMutation({
    mutationFn: (isOn: boolean) => call(api.webhooks.switch, { params, body: { version, isOn } }),
    onSuccess: (_, isOn) =>
      notifications.show({ message: t(`programs/hooks/${isOn ? 'switchedOn' : 'switchedOff'}`, { name }) }),
    onSettled: renew,
  });
  const trial = useMutation({ mutationFn: () => call(api.webhooks.try, { params }), onSettled: renew });
  const remove = useMutation({
    mutationFn: () => call(api.webhooks.remove, { params }),
    onSuccess: () => notifications.show({ message: t('programs/hooks/removed', { name }) }),
    onSettled: renew,
  });
  return { turn, trial, remove };
}

/** How an example was taken, with what was sent. */
function Tried({
  result,
}: {
  result: { isTaken: boolean; status: number | null; answer: string; sent: string };
}) {
  const { t } = useWords();
  const { isTaken, answer, sent } = result;
  const status = result.status ?? t('programs/hooks/noAnswer');
  return (
    <Alert color="gray" variant="outline" role="status" mt="xs">
      {t(isTaken ? 'programs/hooks/taken' : 'programs/hooks/notTaken', { status, answer })}
      <details>
        <summary>{t('programs/hooks/sent')}</summary>
        <Code block>{sent}</Code>
      </details>
    </Alert>
  );
}

function Hook({ webhook, onEdit, onLook }: { webhook: WebhookView; onEdit(): void; onLook(): void }) {
  const { t } = useWords();
  const { turn, trial, remove } = useWebhookActs(webhook);
  const { name, address, isOn, triedAt } = webhook;
  const act = (label: string, onClick: () => void, isPending = false) => (
    <Button
      {...{ size: 'compact-sm', variant: 'default', loading: isPending, onClick }}
      aria-label={t(`programs/hooks/${label}This`, { name })}
    >
      {t(`programs/hooks/${label}`)}
    </Button>
  );
  return (
    <li className={classes.item}>
      <Group justify="space-between" wrap="nowrap">
        <div style={{ minWidth: 0 }}>
          <Anchor
            component="button"
            fw={600}
            aria-label={t('programs/hooks/editThis', { name })}
            onClick={onEdit}
          >
            {name}
          </Anchor>
          <Text size="sm" style={{ overflowWrap: 'anywhere' }}>
            {address}
          </Text>
        </div>
        <Switch
          aria-label={t('programs/hooks/on', { name })}
          checked={isOn}
          disabled={turn.isPending || (triedAt === null && !isOn)}
          onChange={({ target }) => turn.mutate(target.checked)}
        />
      </Group>
      {triedAt === null ? (
        <Text size="sm" c="var(--muted)">
          {t('programs/hooks/notTried')}
        </Text>
      ) : (
        <Fares webhook={webhook} />
      )}
      <Group gap="xs" mt={6}>
        {act('try', () => trial.mutate(), trial.isPending)}
        {act('look', onLook)}
        {act('remove', () => remove.mutate(), remove.isPending)}
      </Group>
      {trial.data && <Tried result={trial.data} />}
      <ProblemNote error={turn.error ?? trial.error ?? remove.error} />
    </li>
  );
}

/** What a program is told by itself: each address with how its messages fare. */
export function Webhooks({ program: { id: programId } }: { program: ProgramView }) {
  const { t } = useWords();
  const { data = [], error, refetch } = useWebhooks(programId);
  const [edited, setEdited] = useState<WebhookView | 'new' | null>(null);
  const [looked, setLooked] = useState<WebhookView | null>(null);
  const [secret, setSecret] = useState<string | null>(null);
  return (
    <section className={classes.section} aria-labelledby="program-hooks">
      <h2 id="program-hooks">{t('programs/hooks/title')}</h2>
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {data.length === 0 && !error && (
        <Text size="sm" c="var(--muted)">
          {t('programs/hooks/none')}
        </Text>
      )}
      <ul className={classes.items}>
        {data.map((webhook) => (
          <Hook
            key={webhook.id}
            webhook={webhook}
            onEdit={() => setEdited(webhook)}
            onLook={() => setLooked(webhook)}
          />
        ))}
      </ul>
      <Button size="xs" variant="default" onClick={() => setEdited('new')}>
        {t('programs/hooks/new')}
      </Button>
      {edited !== null && (
        <WebhookEditor
          programId={programId}
          webhook={edited === 'new' ? null : edited}
          onClose={(made) => {
            setEdited(null);
            setSecret(made);
          }}
        />
      )}
      {looked && <Deliveries webhook={looked} onClose={() => setLooked(null)} />}
      {secret !== null && <ShownOnce secret={secret} onClose={() => setSecret(null)} />}
    </section>
  );
}
