import { Button, Checkbox, Group, NativeSelect, NumberInput, Stack, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { LineSetUp } from '../../../contract/conversations';
import { OFFER_FACTS } from '../../../contract/talkNames';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useAllServices, useTeams } from '../../api/queries';
import '../../messages/talkWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';

const TEXTS = ['name', 'about', 'closedWords'] as const;
const LABELS = { name: 'name', about: 'about', closedWords: 'closed' } as const;

function LineForm({ line }: { line: LineSetUp }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const { data: services = [] } = useAllServices();
  const [wanted, setWanted] = useState(line);
  const save = useMutation({
    mutationFn: () => {
      const { id, mayEdit: _, ...body } = wanted;
      return call(api.conversations.saveLine, { params: { id }, body });
    },
    onSuccess: () => notifications.show({ message: t('talk/lines/saved') }),
    onSettled: () => client.invalidateQueries({ queryKey: ['linesSetUp'] }),
  });
  const set = (change: Partial<LineSetUp>): void => setWanted({ ...wanted, ...change });
  return (
    <fieldset className={classes.section} disabled={!line.mayEdit} style={{ border: 0, padding: 0 }}>
      <legend>
        <h2>{local(line.name) || t('talk/lines/add')}</h2>
      </legend>
      <Stack gap="sm" maw={820}>
        {TEXTS.map((field) => (
          <Group key={field} grow>
            {(['en', 'pt'] as const).map((language) => (
              <TextInput
                key={language}
                label={t(`talk/lines/${LABELS[field]}`, { language })}
                value={wanted[field][language]}
                onChange={({ target }) => set({ [field]: { ...wanted[field], [language]: target.value } })}
              />
            ))}
          </Group>
        ))}
        <Group grow align="flex-end">
          <NativeSelect
            label={t('talk/lines/team')}
            value={wanted.teamId}
            data={teams.map(({ id, name }) => ({ value: id, label: local(name) }))}
            onChange={({ target }) => set({ teamId: target.value })}
          />
          <NativeSelect
            label={t('talk/lines/service')}
            value={wanted.serviceId ?? ''}
            data={[
              { value: '', label: '–' },
              ...services.map(({ id, title }) => ({ value: id, label: local(title) })),
            ]}
            onChange={({ target }) => set({ serviceId: target.value || null })}
          />
          <TextInput
            label={t('talk/lines/skill')}
            value={wanted.skill ?? ''}
            onChange={({ target }) => set({ skill: target.value.trim() || null })}
          />
        </Group>
        <Group grow align="flex-end">
          <NumberInput
            label={t('talk/lines/offerSeconds')}
            min={10}
            max={600}
            value={wanted.offerSeconds}
            onChange={(value) => set({ offerSeconds: Number(value) || 30 })}
          />
          <NumberInput
            label={t('talk/lines/askAfter')}
            min={1}
            max={120}
            value={wanted.askAfter}
            onChange={(value) => set({ askAfter: Number(value) || 1 })}
          />
          <NumberInput
            label={t('talk/lines/endAfter')}
            min={1}
            max={240}
            value={wanted.endAfter}
            onChange={(value) => set({ endAfter: Number(value) || 1 })}
          />
        </Group>
        <Checkbox.Group
          label={t('talk/lines/facts')}
          value={wanted.facts}
          onChange={(facts) => set({ facts: OFFER_FACTS.filter((fact) => facts.includes(fact)) })}
        >
          <Group gap="md" mt={4}>
            {OFFER_FACTS.map((fact) => (
              <Checkbox key={fact} value={fact} label={t(`talk/desk/facts/${fact}`)} />
            ))}
          </Group>
        </Checkbox.Group>
        <Checkbox
          label={t('talk/lines/isOn')}
          checked={wanted.isOn}
          onChange={({ target }) => set({ isOn: target.checked })}
        />
        <ProblemNote error={save.error} />
        {line.mayEdit && (
          <Group>
            <Button
              loading={save.isPending}
              disabled={wanted.name.en.trim() === ''}
              onClick={() => save.mutate()}
            >
              {t('common/save')}
            </Button>
          </Group>
        )}
      </Stack>
    </fieldset>
  );
}

const emptyLine = (teamId: string): LineSetUp => ({
  ...{
    id: nanoid(12),
    teamId,
    skill: null,
    serviceId: null,
    isOn: true,
    offerSeconds: 30,
    askAfter: 5,
    endAfter: 10,
    version: 0,
  },
  ...{ name: { en: '', pt: '' }, about: { en: '', pt: '' }, closedWords: { en: '', pt: '' } },
  ...{ facts: ['title', 'site', 'openTickets'], mayEdit: true },
});

/** The lines in which employees wait for a person. */
export function LinesPage() {
  const { t } = useWords();
  const { data: teams = [] } = useTeams();
  const { data, error } = useQuery({
    queryKey: ['linesSetUp'],
    queryFn: () => call(api.conversations.setUp),
  });
  const [added, setAdded] = useState<LineSetUp | null>(null);
  const own = teams.find(({ mayEdit, mayLead }) => mayEdit || mayLead);
  return (
    <WorkshopFrame lead={t('talk/lines/lead')}>
      <ProblemNote error={error} />
      {!data && !error && <Waiting />}
      {data?.map((line) => (
        <LineForm key={`${line.id}:${line.version}`} line={line} />
      ))}
      {added && !data?.some(({ id }) => id === added.id) && <LineForm key={added.id} line={added} />}
      {own && (
        <Button mt="md" variant="default" onClick={() => setAdded(emptyLine(own.id))}>
          {t('talk/lines/add')}
        </Button>
      )}
    </WorkshopFrame>
  );
}
