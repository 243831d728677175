import { Button, Container } from '@mantine/core';
import { lazy, Suspense, useEffect, useRef } from 'react';
import { useSession } from '../api/queries';
import { setLanguage } from '../messages/i18n';
import { useWords } from '../messages/useWords';
import { Frame } from '../frame/Frame';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';

// Whoever is signed in needs neither: they are no part of the first load.
const SetUp = lazy(() => import('./SetUp').then(({ SetUp: page }) => ({ default: page })));
const FactorNeeded = lazy(() =>
  import('./FactorNeeded').then(({ FactorNeeded: page }) => ({ default: page })),
);
const SignIn = lazy(() => import('./SignIn').then(({ SignIn: page }) => ({ default: page })));

/** Until the server says more there are passwords. */
const NO_WAYS = { providers: [], hasPasswords: true };

/** Lets those in who are signed in; others sign in here, at the address they came for. */
export function Gate() {
  const { t, language } = useWords();
  const { data, error, refetch, isPending } = useSession();
  const wasIn = useRef(false);
  const chosen = data?.me?.language;
  useEffect(() => {
    if (chosen && chosen !== language) void setLanguage(chosen);
    // Only when the person's own choice becomes known or changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [chosen]);
  useEffect(() => {
    if (data?.me) wasIn.current = true;
  }, [data?.me]);
  if (isPending) return <Waiting />;
  if (!data)
    return (
      <Container size="xs" py="xl">
        <ProblemNote error={error} />
        <Button mt="md" onClick={() => void refetch()}>
          {t('lost/again')}
        </Button>
      </Container>
    );
  if (data.me && !data.needsSetup) return <Frame />;
  return (
    <Suspense fallback={<Waiting />}>
      {data.needsSetup ? (
        <SetUp />
      ) : data.mustSetFactor ? (
        <FactorNeeded />
      ) : (
        <SignIn isDemo={data.isDemo} hasEnded={wasIn.current} ways={data.waysIn ?? NO_WAYS} />
      )}
    </Suspense>
  );
}
