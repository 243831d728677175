import { Anchor, Button, PasswordInput, Stack, Text, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { findProvider } from '../../core/signOn';
import { ApiProblem, call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Forgotten } from './Forgotten';
import { useAddressOf, type Ways } from './Providers';

const codeOf = (error: unknown): string | null => (error instanceof ApiProblem ? error.code : null);

/** Says where those with the address that is typed sign in instead. */
function Theirs({ ways, email }: { ways: Ways; email: string }) {
  const { t } = useWords();
  const addressOf = useAddressOf();
  const provider = findProvider(ways.providers, email);
  if (!provider) return null;
  return (
    <Text size="sm" role="status">
      <Anchor href={addressOf(provider.id)}>{t('signOn/theirs', { provider: provider.name })}</Anchor>
    </Text>
  );
}

/** A name and a password; a code too, once it is known that one is asked for. */
export function PasswordForm({ ways, onIn }: { ways: Ways; onIn(): void }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(ways.hasPasswords);
  const form = useForm({ initialValues: { email: '', password: '', code: '' } });
  const [asksCode, setAsksCode] = useState(false);
  const signIn = useMutation({
    mutationFn: ({ code, ...body }: typeof form.values) =>
      call(api.session.signIn, { body: { ...body, ...(code.trim() !== '' && { code }) } }),
    onSuccess: onIn,
    onError(error) {
      if (codeOf(error) === 'codeNeeded') setAsksCode(true);
      // A code works once: the next is another.
      if (codeOf(error) === 'wrongFactorCode') form.setFieldValue('code', '');
    },
  });
  if (!isOpen)
    return (
      <Text size="sm" c="dimmed">
        {t('signOn/noPasswords')}{' '}
        <Anchor component="button" type="button" size="sm" onClick={() => setOpen(true)}>
          {t('signOn/emergency')}
        </Anchor>
      </Text>
    );
  return (
    <>
      <form onSubmit={form.onSubmit((values) => signIn.mutate(values))} aria-label={t('signOn/byPassword')}>
        <Stack gap="sm">
          <TextInput label={t('signIn/email')} autoComplete="username" {...form.getInputProps('email')} />
          <Theirs ways={ways} email={form.values.email} />
          <PasswordInput
            label={t('signIn/password')}
            autoComplete="current-password"
            {...form.getInputProps('password')}
          />
          {asksCode && (
            <TextInput
              {...{ autoComplete: 'one-time-code', autoFocus: true, maw: 220 }}
              label={t('signOn/code')}
              description={t('signOn/codeHelp')}
              {...form.getInputProps('code')}
            />
          )}
          {codeOf(signIn.error) !== 'codeNeeded' && <ProblemNote error={signIn.error} />}
          <Button
            type="submit"
            variant={ways.providers.length > 0 ? 'default' : 'filled'}
            loading={signIn.isPending}
            style={{ alignSelf: 'flex-start' }}
          >
            {t('signIn/submit')}
          </Button>
        </Stack>
      </form>
      <Forgotten email={form.values.email} />
    </>
  );
}
