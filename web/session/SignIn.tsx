import { Alert, Button, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../api/endpoints';
import type { AnswerOf } from '../../contract/endpoint';
import { call } from '../api/call';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Forgotten } from './Forgotten';
import classes from './SignIn.module.css';

type DemoPerson = AnswerOf<typeof api.session.demoPeople>[number];

function useEnter() {
  const client = useQueryClient();
  return () => client.resetQueries();
}

function DemoPeople() {
  const { t } = useWords();
  const enter = useEnter();
  const { data: people = [] } = useQuery({
    queryKey: ['demoPeople'],
    queryFn: () => call(api.session.demoPeople),
  });
  const signIn = useMutation({
    mutationFn: (personId: string) => call(api.session.signInDemo, { body: { personId } }),
    onSuccess: enter,
  });
  const linesOf = ({ title, site, teams, mayDo }: DemoPerson): string =>
    [title, teams.length > 0 ? null : site, mayDo.map((what) => t(`signIn/may/${what}`)).join(', ')]
      .filter(Boolean)
      .join(' · ');
  return (
    <>
      <div className={classes.groups}>
        {(['ask', 'approve', 'desk'] as const).map((group) => (
          <section key={group} aria-labelledby={`group-${group}`}>
            <h2 id={`group-${group}`}>{t(`signIn/group/${group}`)}</h2>
            {people
              .filter((person) => person.group === group)
              .map((person) => (
                <button
                  key={person.id}
                  type="button"
                  className={classes.person}
                  disabled={signIn.isPending}
                  onClick={() => signIn.mutate(person.id)}
                >
                  <strong>{person.name}</strong>
                  <small>{linesOf(person)}</small>
                </button>
              ))}
          </section>
        ))}
      </div>
      {signIn.error && <ProblemNote error={signIn.error} />}
    </>
  );
}

/** Signing in: as one of the demo's people, or by name and password. */
export function SignIn({ isDemo, hasEnded }: { isDemo: boolean; hasEnded: boolean }) {
  const { t } = useWords();
  const enter = useEnter();
  const form = useForm({ initialValues: { email: '', password: '' } });
  const signIn = useMutation({
    mutationFn: (body: typeof form.values) => call(api.session.signIn, { body }),
    onSuccess: enter,
  });
  return (
    <main className={classes.page}>
      <Title order={1}>{t('signIn/title')}</Title>
      {hasEnded && (
        <Alert mt="md" color="gray" variant="outline">
          {t('signIn/ended')}
        </Alert>
      )}
      {isDemo && (
        <>
          <Text mt={6} c="dimmed">
            {t('signIn/demoLead')}
          </Text>
          <DemoPeople />
        </>
      )}
      <form
        className={classes.form}
        onSubmit={form.onSubmit((values) => signIn.mutate(values))}
        aria-label={t('signIn/byName')}
      >
        <Stack gap="sm">
          {isDemo && (
            <Title order={2} size="h5">
              {t('signIn/byName')}
            </Title>
          )}
          <TextInput label={t('signIn/email')} autoComplete="username" {...form.getInputProps('email')} />
          <PasswordInput
            label={t('signIn/password')}
            autoComplete="current-password"
            {...form.getInputProps('password')}
          />
          {signIn.error && <ProblemNote error={signIn.error} />}
          <Button type="submit" loading={signIn.isPending} style={{ alignSelf: 'flex-start' }}>
            {t('signIn/submit')}
          </Button>
        </Stack>
      </form>
      <div className={classes.form}>
        <Forgotten email={form.values.email} />
      </div>
    </main>
  );
}
