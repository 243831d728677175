import { Button, CopyButton, Group, Text, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import type { KeptPerson } from '../../../contract/organisation';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from '../Workshop.module.css';
import { useRenewPeople } from './usePeople';

/** That a second factor is asked of someone, and taking it away from who has lost it. */
function LostFactor({ id }: { id: string }) {
  const { t } = useWords();
  const renew = useRenewPeople();
  const remove = useMutation({
    mutationFn: () => call(api.organisation.removeFactor, { params: { id } }),
    onSuccess: () => notifications.show({ message: t('people/factorGone') }),
    onSettled: renew,
  });
  return (
    <Group gap="sm" mt="xs">
      <Text size="sm">{t('people/hasFactor')}</Text>
      <Button size="compact-sm" variant="default" loading={remove.isPending} onClick={() => remove.mutate()}>
        {t('people/removeFactor')}
      </Button>
      <ProblemNote error={remove.error} />
    </Group>
  );
}

/** How someone comes in, and a link for those who cannot yet. The link is shown once. */
export function WayIn({ person }: { person: KeptPerson }) {
  const { id, wayIn, sessions, invitation, leftAt, providers } = person;
  const { t } = useWords();
  const times = useTimes();
  const renew = useRenewPeople();
  const invite = useMutation({
    mutationFn: () => call(api.organisation.invite, { params: { id }, body: {} }),
    onSettled: renew,
  });
  const made = invite.data;
  return (
    <section className={classes.section} aria-labelledby="person-way">
      <h2 id="person-way">{t('people/way')}</h2>
      <Text size="sm">
        {wayIn === 'password' && t('people/wayPassword', { count: sessions })}
        {wayIn === 'provider' && t('people/wayProvider', { providers: providers.join(', ') })}
        {wayIn === 'none' && t('people/wayNone')}
        {wayIn === 'invited' &&
          invitation &&
          t('people/wayInvited', {
            ...{ by: invitation.byName, at: times.day(invitation.at), end: times.day(invitation.endsAt) },
          })}
      </Text>
      {person.hasFactor && <LostFactor id={id} />}
      {made && (
        <div role="status">
          <Text size="sm" mt="xs">
            {t(made.isMailed ? 'people/isMailed' : 'people/notMailed', { end: times.day(made.endsAt) })}
          </Text>
          <Group align="end" gap="xs" mt="xs">
            <TextInput readOnly label={t('people/link')} value={made.link} style={{ flex: 1 }} maw={520} />
            <CopyButton value={made.link}>
              {({ copied, copy }) => (
                <Button variant="default" onClick={copy}>
                  {copied ? t('people/copied') : t('people/copy')}
                </Button>
              )}
            </CopyButton>
          </Group>
        </div>
      )}
      <ProblemNote error={invite.error} />
      {leftAt === null && wayIn !== 'password' && wayIn !== 'provider' && (
        <Button mt="sm" variant="default" loading={invite.isPending} onClick={() => invite.mutate()}>
          {t(wayIn === 'invited' ? 'people/inviteAgain' : 'people/invite')}
        </Button>
      )}
    </section>
  );
}
