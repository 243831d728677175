import { Alert, Text, Title } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../api/endpoints';
import type { AnswerOf } from '../../contract/endpoint';
import { call } from '../api/call';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useSearchParams } from 'react-router';
import '../messages/signOnWords';
import { PasswordForm } from './PasswordForm';
import { Providers, type Ways } from './Providers';
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

/** Why somebody who comes back from a provider was not let in. */
const SORRY = [
  ...(['left', 'mailNotVerified', 'notItsDomain', 'otherSubject', 'notKnown', 'nameless'] as const),
  ...(['notBegunHere', 'refusedThere', 'failed', 'away', 'tooManyTries'] as const),
];

function Sorry() {
  const { t } = useWords();
  const [params] = useSearchParams();
  const why = SORRY.find((code) => code === params.get('signOn'));
  if (!why) return null;
  return (
    <Alert mt="md" color="gray" variant="outline" role="alert">
      {t(`signOn/sorry/${why}`)}
    </Alert>
  );
}

/** Signing in: as one of the demo's people, at a provider, or by name and password. */
export function SignIn({ isDemo, hasEnded, ways }: { isDemo: boolean; hasEnded: boolean; ways: Ways }) {
  const { t } = useWords();
  const enter = useEnter();
  return (
    <main className={classes.page}>
      <Title order={1}>{t('signIn/title')}</Title>
      {hasEnded && (
        <Alert mt="md" color="gray" variant="outline">
          {t('signIn/ended')}
        </Alert>
      )}
      <Sorry />
      {isDemo && (
        <>
          <Text mt={6} c="dimmed">
            {t('signIn/demoLead')}
          </Text>
          <DemoPeople />
        </>
      )}
      <div className={classes.form}>
        {isDemo && (
          <Title order={2} size="h5" mb="sm">
            {t('signIn/byName')}
          </Title>
        )}
        <Providers providers={ways.providers} />
        <PasswordForm ways={ways} onIn={() => void enter()} />
      </div>
    </main>
  );
}
