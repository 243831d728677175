import { Button, Group, NativeSelect } from '@mantine/core';
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
import { TemplateName, type Named } from './TemplateName';

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
  const [naming, setNaming] = useState<'kept' | 'taken' | null>(null);
  const [takenId, setTaken] = useState('');
  const team = teams.find(({ id }) => id === me.teams[0]?.teamId);
  const taken = templates.find(({ id }) => id === takenId);
  const renew = () => client.invalidateQueries({ queryKey: ['templates'] });
  const keep = useMutation({
    mutationFn: async (named: Named) => {
      if (naming === 'taken') await call(api.templates.update, { params: { id: takenId }, body: named });
      else {
        const body = { ...named, teamId: team!.id, serviceId: serviceId!, title: title.trim(), answers };
        await call(api.templates.create, { body });
      }
    },
    onSuccess: async (_, { name }) => {
      const message =
        naming === 'taken'
          ? t('raise/templateSaved', { name })
          : t('raise/templateKept', { name, team: local(team!.name) });
      notifications.show({ message });
      setNaming(null);
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
  const named = naming === 'taken' ? taken : { name: title, isOffered: false, serviceId, mayOffer: false };
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
      {naming === null && (
        <Group gap="xs" mt={6}>
          {serviceId !== null && title.trim() !== '' && team && (
            <Button size="compact-xs" variant="subtle" onClick={() => setNaming('kept')}>
              {t('raise/keepTemplate')}
            </Button>
          )}
          {taken && (
            <>
              <Button size="compact-xs" variant="subtle" onClick={() => setNaming('taken')}>
                {t('raise/renameTemplate')}
              </Button>
              <Button size="compact-xs" variant="subtle" onClick={() => drop.mutate(taken.id)}>
                {t('raise/dropTemplate', { name: taken.name })}
              </Button>
            </>
          )}
        </Group>
      )}
      {naming !== null && named && (
        <TemplateName
          {...{
            name: named.name,
            isOffered: named.isOffered,
            serviceId: named.serviceId!,
            mayOffer: named.mayOffer,
          }}
          isPending={keep.isPending}
          problem={problems.name}
          onSave={(wanted) => keep.mutate(wanted)}
          onCancel={() => setNaming(null)}
        />
      )}
      {keep.error && !problems.name && <ProblemNote error={keep.error} />}
      <ProblemNote error={drop.error} />
    </div>
  );
}
