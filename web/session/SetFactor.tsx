import { Button, Group, Stack, Text, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { renderSVG } from 'uqr';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import '../messages/signOnWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import classes from './SignIn.module.css';

/** In groups of four, as one types it from a screen. */
const inGroups = (secret: string): string => secret.replace(/(.{4})(?=.)/g, '$1 ');

function Spares({ spares, onKept }: { spares: string[]; onKept(): void }) {
  const { t } = useWords();
  return (
    <Stack gap="sm">
      <Text size="sm">{t('signOn/factor/spares')}</Text>
      <ul className={classes.spares}>
        {spares.map((spare) => (
          <li key={spare}>{spare}</li>
        ))}
      </ul>
      <Button data-autofocus onClick={onKept} style={{ alignSelf: 'flex-start' }}>
        {t('signOn/factor/kept')}
      </Button>
    </Stack>
  );
}

/** Sets a second factor: a picture for a program for codes, a code of it back, and codes for when it is lost. */
export function SetFactor({ onDone }: { onDone(): void }) {
  const { t } = useWords();
  const [code, setCode] = useState('');
  // Made once for this visit; another visit makes another.
  const made = useQuery({
    ...{ queryKey: ['secondFactor', 'new'], gcTime: 0, staleTime: Infinity, retry: false },
    queryFn: () => call(api.session.beginFactor, { body: {} }),
  });
  const confirm = useMutation({ mutationFn: () => call(api.session.confirmFactor, { body: { code } }) });
  if (confirm.data) return <Spares spares={confirm.data.spares} onKept={onDone} />;
  if (!made.data)
    return made.error ? <ProblemNote error={made.error} onRetry={() => void made.refetch()} /> : <Waiting />;
  const picture = `data:image/svg+xml;utf8,${encodeURIComponent(renderSVG(made.data.address, { border: 2 }))}`;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        confirm.mutate();
      }}
    >
      <Stack gap="sm">
        <Text size="sm">{t('signOn/factor/scan')}</Text>
        <img src={picture} alt={t('signOn/factor/picture')} width={200} height={200} className={classes.qr} />
        <Text size="sm">
          {t('signOn/factor/orType')} <code className={classes.secret}>{inGroups(made.data.secret)}</code>
        </Text>
        <TextInput
          {...{ inputMode: 'numeric', autoComplete: 'one-time-code', value: code, maw: 220 }}
          label={t('signOn/factor/nowCode')}
          onChange={({ target }) => setCode(target.value)}
        />
        <ProblemNote error={confirm.error} />
        <Group>
          <Button type="submit" loading={confirm.isPending} disabled={code.trim() === ''}>
            {t('signOn/factor/confirm')}
          </Button>
        </Group>
      </Stack>
    </form>
  );
}
