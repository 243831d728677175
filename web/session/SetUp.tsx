import { Button, Container, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../api/endpoints';
import { call } from '../api/call';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';

/** The first step in an empty Listo: its first administrator. */
export function SetUp() {
  const { t } = useWords();
  const client = useQueryClient();
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const form = useForm({
    initialValues: { code: '', organisation: '', name: '', email: '', password: '', timeZone: zone },
  });
  const toProblems = useProblems();
  const setUp = useMutation({
    mutationFn: (body: typeof form.values) => call(api.session.setUp, { body }),
    onSuccess: () => client.resetQueries(),
    onError: (error) => form.setErrors(toProblems(error)),
  });
  return (
    <Container component="main" size={420} py={44}>
      <Title order={1}>{t('setUp/title')}</Title>
      <Text c="dimmed" my="sm">
        {t('setUp/lead')}
      </Text>
      <form onSubmit={form.onSubmit((values) => setUp.mutate(values))}>
        <Stack gap="sm">
          <TextInput
            label={t('setUp/code')}
            description={t('setUp/codeHelp')}
            autoComplete="off"
            {...form.getInputProps('code')}
          />
          <TextInput label={t('setUp/organisation')} {...form.getInputProps('organisation')} />
          <TextInput label={t('setUp/yourName')} autoComplete="name" {...form.getInputProps('name')} />
          <TextInput label={t('signIn/email')} autoComplete="username" {...form.getInputProps('email')} />
          <PasswordInput
            label={t('setUp/password')}
            autoComplete="new-password"
            {...form.getInputProps('password')}
          />
          <TextInput label={t('setUp/zone')} {...form.getInputProps('timeZone')} />
          {setUp.error && <ProblemNote error={setUp.error} />}
          <Button type="submit" loading={setUp.isPending} style={{ alignSelf: 'flex-start' }}>
            {t('setUp/submit')}
          </Button>
        </Stack>
      </form>
    </Container>
  );
}
