import { Button, PasswordInput, Stack, Text, Title } from '@mantine/core';
import { useForm } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';

const EMPTY = { current: '', password: '' };

/** Taking another password; whoever is signed in elsewhere has to sign in anew. */
export function Password() {
  const { t } = useWords();
  const client = useQueryClient();
  const toProblems = useProblems();
  const form = useForm({ initialValues: EMPTY });
  const change = useMutation({
    mutationFn: (body: typeof EMPTY) => call(api.session.password, { body, key: nanoid() }),
    onSuccess() {
      form.reset();
      notifications.show({ message: t('sessions/passwordChanged') });
    },
    onError: (error) => form.setErrors(toProblems(error)),
    onSettled: () => client.invalidateQueries({ queryKey: ['sessions'] }),
  });
  return (
    <section aria-labelledby="password">
      <Title order={2} size="h3" mt="xl" id="password">
        {t('sessions/password')}
      </Title>
      <Text size="sm" c="dimmed" mb="sm">
        {t('sessions/passwordLead')}
      </Text>
      <form onSubmit={form.onSubmit((values) => change.mutate(values))}>
        <Stack gap="sm" maw={360}>
          <PasswordInput
            label={t('sessions/current')}
            autoComplete="current-password"
            {...form.getInputProps('current')}
          />
          <PasswordInput
            label={t('sessions/new')}
            autoComplete="new-password"
            {...form.getInputProps('password')}
          />
          {change.error && Object.keys(form.errors).length === 0 && <ProblemNote error={change.error} />}
          <Button
            type="submit"
            loading={change.isPending}
            disabled={form.values.password === ''}
            style={{ alignSelf: 'flex-start' }}
          >
            {t('sessions/changePassword')}
          </Button>
        </Stack>
      </form>
    </section>
  );
}
