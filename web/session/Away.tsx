import { Button, Container, Group, Pill, Space, Table, Text, Title } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { useMe } from '../api/queries';
import { useDraft } from '../api/useDraft';
import { useWords } from '../messages/useWords';
import { PersonPicker } from '../ui/PersonPicker';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { useTimes } from '../ui/useTimes';
import { zonedInstant } from '../ui/zonedInstant';
import { DayInput } from '../ui/DayInput';

const DAY = 86_400_000;
type Draft = { from: string; to: string; delegate: { id: string; name: string } | null };
const EMPTY: Draft = { from: '', to: '', delegate: null };

/** From the beginning of the first day until the end of the last, where one is. */
function toSpan({ from, to }: Draft, timeZone: string): { fromAt: number; toAt: number } | null {
  const fromAt = zonedInstant(`${from}T00:00`, timeZone);
  const last = zonedInstant(`${to}T12:00`, timeZone);
  if (fromAt === null || last === null) return null;
  const day = new Date(last + DAY).toISOString().slice(0, 10);
  return { fromAt, toAt: zonedInstant(`${day}T00:00`, timeZone)! };
}

function AwayForm() {
  const { t } = useWords();
  const { timeZone } = useMe();
  const client = useQueryClient();
  const [draft, setDraft, clear] = useDraft<Draft>('away', EMPTY);
  const [isMissing, setMissing] = useState(false);
  const span = toSpan(draft, timeZone);
  const add = useMutation({
    mutationFn: () =>
      call(api.absences.add, { body: { ...span!, delegateId: draft.delegate?.id ?? null }, key: nanoid() }),
    onSuccess: clear,
    onSettled: () => client.invalidateQueries({ queryKey: ['absences'] }),
  });
  const problems = useProblems()(add.error);
  const change = (changes: Partial<Draft>): void => setDraft({ ...draft, ...changes });
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setMissing(span === null);
        if (span) add.mutate();
      }}
    >
      <Group align="flex-start" grow>
        <DayInput
          label={t('away/from')}
          value={draft.from}
          error={isMissing && !draft.from ? t('fields/missing') : problems.fromAt}
          onChange={(day) => change({ from: day })}
        />
        <DayInput
          label={t('away/to')}
          value={draft.to}
          error={isMissing && !draft.to ? t('fields/missing') : problems.toAt}
          onChange={(day) => change({ to: day })}
        />
      </Group>
      <Space h="md" />
      <PersonPicker
        label={t('away/delegate')}
        description={t('away/delegateHelp')}
        onPick={({ id, name }) => change({ delegate: { id, name } })}
      />
      {draft.delegate && (
        <Pill
          mt={6}
          withRemoveButton
          removeButtonProps={{ 'aria-label': t('away/nobody') }}
          onRemove={() => change({ delegate: null })}
        >
          {draft.delegate.name}
        </Pill>
      )}
      {problems.delegateId && <Text c="var(--brick)">{problems.delegateId}</Text>}
      <Button type="submit" mt="md" loading={add.isPending}>
        {t('away/add')}
      </Button>
      {add.error && Object.keys(problems).length === 0 && <ProblemNote error={add.error} />}
    </form>
  );
}

/** When one is away, and who decides in one's place. */
export function Away() {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const client = useQueryClient();
  const { data = [] } = useQuery({ queryKey: ['absences'], queryFn: () => call(api.absences.mine) });
  const remove = useMutation({
    mutationFn: (id: string) => call(api.absences.remove, { params: { id } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['absences'] }),
  });
  return (
    <Container size="sm" py="xl">
      <Title order={1} size="h2" mb={4}>
        {t('away/title')}
      </Title>
      <Text mb="md">{t('away/lead')}</Text>
      {data.length > 0 && (
        <Table mb="lg">
          <Table.Tbody>
            {data.map(({ id, fromAt, toAt, delegate }) => (
              <Table.Tr key={id}>
                <Table.Td>
                  {t('away/span', { from: times.day(fromAt), to: times.day(toAt - 1) })}
                  {fromAt <= now && <b> · {t('away/now')}</b>}
                  <Text size="sm" c="var(--muted)">
                    {delegate ? t('away/decides', { name: delegate.name }) : t('away/waits')}
                  </Text>
                </Table.Td>
                <Table.Td ta="right">
                  <Button size="compact-sm" variant="default" onClick={() => remove.mutate(id)}>
                    {t('away/remove')}
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
      <AwayForm />
    </Container>
  );
}
