import { Anchor, Button, Container, Table, Text, Title } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../api/endpoints';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { Factor } from './Factor';
import { Password } from './Password';

/** Where one is signed in, and ending it. */
export function Sessions() {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const client = useQueryClient();
  const {
    data = [],
    error,
    isPending,
    refetch,
  } = useQuery({ queryKey: ['sessions'], queryFn: () => call(api.session.list) });
  const end = useMutation({
    mutationFn: (id: string) => call(api.session.end, { params: { id } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['sessions'] }),
  });
  const endAll = useMutation({
    mutationFn: () => call(api.session.endOthers),
    onSettled: () => client.invalidateQueries({ queryKey: ['sessions'] }),
  });
  return (
    <Container size="sm" py="xl">
      <Title order={1} size="h2" mb="md">
        {t('sessions/title')}
      </Title>
      {isPending && <Waiting />}
      <ProblemNote error={error} onRetry={() => void refetch()} />
      <ProblemNote error={end.error ?? endAll.error} />
      <Anchor size="sm" href="/api/v1/my/archive" download>
        {t('sessions/archive')}
      </Anchor>
      <Table>
        <Table.Tbody>
          {data.map(({ id, createdAt, seenAt, userAgent, isThis }) => (
            <Table.Tr key={id}>
              <Table.Td>
                <Text size="sm" lineClamp={1}>
                  {userAgent}
                </Text>
                <Text size="xs" c="dimmed">
                  {t('sessions/since', { when: times.when(createdAt, now) })} ·{' '}
                  {t('sessions/seen', { when: times.when(seenAt, now) })}
                </Text>
              </Table.Td>
              <Table.Td ta="right">
                {isThis ? (
                  <Text size="sm">{t('sessions/this')}</Text>
                ) : (
                  <Button size="compact-sm" variant="default" onClick={() => end.mutate(id)}>
                    {t('sessions/end')}
                  </Button>
                )}
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {data.length > 1 && (
        <Button
          mt="sm"
          size="compact-sm"
          variant="default"
          loading={endAll.isPending}
          onClick={() => endAll.mutate()}
        >
          {t('sessions/endOthers')}
        </Button>
      )}
      <Password />
      <Factor />
    </Container>
  );
}
