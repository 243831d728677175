import { Button, Container, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { ApiProblem, call } from '../api/call';
import { api } from '../api/endpoints';
import '../messages/signOnWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { Waiting } from '../ui/Waiting';

function ChoosePassword({ token, email }: { token: string; email: string }) {
  const { t } = useWords();
  const go = useNavigate();
  const client = useQueryClient();
  const toProblems = useProblems();
  const form = useForm({ initialValues: { password: '', code: '' } });
  const accept = useMutation({
    mutationFn: ({ password, code }: typeof form.values) =>
      call(api.organisation.accept, {
        params: { token },
        body: { password, ...(code.trim() !== '' && { code }) },
      }),
    onSuccess: async () => {
      await client.resetQueries();
      void go('/ask');
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  const why = accept.error instanceof ApiProblem ? accept.error.code : null;
  const asksCode = why === 'codeNeeded' || why === 'wrongFactorCode' || form.values.code !== '';
  return (
    <form onSubmit={form.onSubmit((values) => accept.mutate(values))}>
      <Stack gap="sm">
        {/* Programs that keep passwords ask for the name that it belongs to. */}
        <input type="hidden" name="username" autoComplete="username" value={email} />
        <PasswordInput
          label={t('setUp/password')}
          description={t('welcome/forName', { email })}
          autoComplete="new-password"
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
        {accept.error && Object.keys(form.errors).length === 0 && <ProblemNote error={accept.error} />}
        <Button type="submit" loading={accept.isPending} style={{ alignSelf: 'flex-start' }}>
          {t('welcome/enter')}
        </Button>
      </Stack>
    </form>
  );
}

/** Where the link of an invitation leads: a password of one's own, and in. */
export function WelcomePage() {
  const { t } = useWords();
  const token = useParams().token!;
  const { data, error } = useQuery({
    queryKey: ['invitation', token],
    retry: false,
    queryFn: () => call(api.organisation.invitation, { params: { token } }),
  });
  if (!data && !error) return <Waiting />;
  return (
    <Container component="main" size={420} py={44}>
      <Title order={1}>{t('welcome/title', { organisation: data?.organisation ?? 'Listo' })}</Title>
      {data?.state === 'open' ? (
        <>
          <Text c="dimmed" my="sm">
            {t('welcome/lead', { name: data.name })}
          </Text>
          <ChoosePassword token={token} email={data.email} />
        </>
      ) : (
        <>
          <Text my="sm">{t(`welcome/over/${data?.state ?? 'unknown'}`)}</Text>
          <Button component={Link} to="/ask" variant="default">
            {t('welcome/signIn')}
          </Button>
        </>
      )}
    </Container>
  );
}
