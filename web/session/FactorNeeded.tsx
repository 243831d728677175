import { Anchor, Container, Text, Title } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import '../messages/signOnWords';
import { useWords } from '../messages/useWords';
import { SetFactor } from './SetFactor';

/** What stands before everything for those of whom a second factor is asked and who have none. */
export function FactorNeeded() {
  const { t } = useWords();
  const client = useQueryClient();
  const leave = useMutation({
    mutationFn: () => call(api.session.signOut),
    onSettled: () => client.resetQueries(),
  });
  return (
    <Container component="main" size={460} py={44}>
      <Title order={1}>{t('signOn/factor/needed')}</Title>
      <Text c="dimmed" my="sm">
        {t('signOn/factor/neededLead')}
      </Text>
      <SetFactor onDone={() => void client.resetQueries()} />
      <Anchor component="button" type="button" size="sm" mt="lg" onClick={() => leave.mutate()}>
        {t('signOn/factor/other')}
      </Anchor>
    </Container>
  );
}
