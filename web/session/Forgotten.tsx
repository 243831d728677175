import { Anchor, Button, Group, Text, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';

/** Asks for a link for another password. What is answered does not tell who is known here. */
export function Forgotten({ email: typed }: { email: string }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  const [email, setEmail] = useState('');
  const send = useMutation({ mutationFn: () => call(api.organisation.forgotten, { body: { email } }) });
  if (!isOpen)
    return (
      <Anchor
        component="button"
        type="button"
        size="sm"
        mt="md"
        onClick={() => {
          setEmail(typed);
          setOpen(true);
        }}
      >
        {t('signIn/forgotten')}
      </Anchor>
    );
  if (send.isSuccess)
    return (
      <Text size="sm" mt="md" role="status">
        {t('signIn/isSent', { email })}
      </Text>
    );
  return (
    <form
      aria-label={t('signIn/forgotten')}
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate();
      }}
    >
      <Text size="sm" mt="md" mb="xs">
        {t('signIn/forgottenLead')}
      </Text>
      <TextInput
        data-autofocus
        label={t('signIn/email')}
        autoComplete="username"
        value={email}
        onChange={({ target }) => setEmail(target.value)}
      />
      <ProblemNote error={send.error} />
      <Group gap="sm" mt="sm">
        <Button type="submit" variant="default" loading={send.isPending} disabled={!email.trim()}>
          {t('signIn/send')}
        </Button>
        <Button variant="subtle" onClick={() => setOpen(false)}>
          {t('signIn/neverMind')}
        </Button>
      </Group>
    </form>
  );
}
