import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { TicketTemplate } from '../../../contract/templates';
import type { Answers } from '../../../core/forms';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';

type Props = {
  draft: { serviceId: string | null; title: string; answers: Answers };
  onTake(template: TicketTemplate): void;
};

/** Tickets prepared for what comes again and again: taken, or kept from what is being written. */
export function Templates({ draft: { serviceId, title, answers }, onTake }: Props) {
  const { t, local } = useWords();
  const me = useMe();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const { data: templates = [] } = useQuery({
    queryKey: ['templates'],
    queryFn: () => call(api.templates.list),
  });
  const [name, setName] = useState<string | null>(null);
  const [takenId, setTaken] = useState('');
  const team = teams.find(({ id }) => id === me.teams[0]?.teamId);
  const renew = () => client.invalidateQueries({ queryKey: ['templates'] });
  const keep = useMutation({
    mutationFn: () =>
      call(api.templates.create, {
        body: { teamId: team!.id, name: name!.trim(), serviceId: serviceId!, title: title.trim(), answers },
      }),
    onSuccess: async () => {
      notifications.show({
        message: t('raise/templateKept', { name: name!.trim(), team: local(team!.name) }),
      });
      setName(null);
      await renew();
    },
  });
  const drop = useMutation({
    mutationFn: (id: string) => call(api.templates.remove, { params: { id } }),
    onSuccess: () => {
      setTaken('');
      return renew();
    },
  });
  const problems = useProblems()(keep.error);
  const taken = templates.find(({ id }) => id === takenId);
  return (
    <div>
      {templates.length > 0 && (
        <NativeSelect
          label={t('raise/template')}
          value={takenId}
          data={[
            { value: '', label: t('raise/noTemplate') },
            ...templates.map((each) => ({ value: each.id, label: each.name })),
          ]}
          onChange={({ target: { value } }) => {
            setTaken(value);
            const template = templates.find(({ id }) => id === value);
            if (template) onTake(template);
          }}
        />
      )}
      <Group gap="xs" mt={6}>
        {name === null && serviceId !== null && title.trim() !== '' && team && (
          <Button size="compact-xs" variant="subtle" onClick={() => setName(title)}>
            {t('raise/keepTemplate')}
          </Button>
        )}
        {taken && name === null && (
          <Button size="compact-xs" variant="subtle" onClick={() => drop.mutate(taken.id)}>
            {t('raise/dropTemplate', { name: taken.name })}
          </Button>
        )}
      </Group>
      {name !== null && (
        <Group gap="xs" align="flex-end">
          <TextInput
            size="xs"
            style={{ flex: 1 }}
            maxLength={120}
            label={t('raise/templateName')}
            value={name}
            error={problems.name}
            onChange={({ target }) => setName(target.value)}
          />
          <Button size="xs" loading={keep.isPending} onClick={() => keep.mutate()}>
            {t('common/save')}
          </Button>
          <Button size="xs" variant="subtle" onClick={() => setName(null)}>
            {t('common/cancel')}
          </Button>
        </Group>
      )}
      {keep.error && !problems.name && <ProblemNote error={keep.error} />}
      <ProblemNote error={drop.error} />
    </div>
  );
}
