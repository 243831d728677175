import { Button, Group, Text, TextInput, Title } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNow } from '../api/clock';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import '../messages/signOnWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { SetFactor } from './SetFactor';

const KEY = ['secondFactor'] as const;

function Remove({ onGone }: { onGone(): void }) {
  const { t } = useWords();
  const [code, setCode] = useState('');
  const remove = useMutation({
    mutationFn: () => call(api.session.removeFactor, { body: { code } }),
    onSuccess() {
      notifications.show({ message: t('signOn/factor/removed') });
      onGone();
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        remove.mutate();
      }}
    >
      <Group align="end" gap="sm" mt="sm">
        <TextInput
          {...{ inputMode: 'numeric', autoComplete: 'one-time-code', value: code, w: 180 }}
          label={t('signOn/factor/removeCode')}
          onChange={({ target }) => setCode(target.value)}
        />
        <Button type="submit" variant="default" loading={remove.isPending} disabled={code.trim() === ''}>
          {t('signOn/factor/remove')}
        </Button>
      </Group>
      <ProblemNote error={remove.error} />
    </form>
  );
}

/** One's own second factor: since when, how many spare codes are left; set or taken away. */
export function Factor() {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const client = useQueryClient();
  const [isSetting, setSetting] = useState(false);
  const { data, error, refetch } = useQuery({ queryKey: KEY, queryFn: () => call(api.session.factor) });
  const renew = () => void client.invalidateQueries({ queryKey: KEY, exact: true });
  const done = (): void => {
    setSetting(false);
    renew();
  };
  return (
    <section aria-labelledby="second-factor">
      <Title order={2} size="h3" mt="xl" id="second-factor">
        {t('signOn/factor/title')}
      </Title>
      <Text size="sm" c="dimmed" mb="sm">
        {t('signOn/factor/lead')}
      </Text>
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {data && data.since !== null && (
        <>
          <Text size="sm">
            {t('signOn/factor/since', { when: times.when(data.since, now) })}{' '}
            {t('signOn/factor/sparesLeft', { count: data.spares })}
          </Text>
          <Remove onGone={renew} />
        </>
      )}
      {data?.since === null && !isSetting && (
        <Button variant="default" onClick={() => setSetting(true)}>
          {t('signOn/factor/begin')}
        </Button>
      )}
      {isSetting && <SetFactor onDone={done} />}
    </section>
  );
}
