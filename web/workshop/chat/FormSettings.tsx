import { Button, Checkbox, Fieldset, Group, MultiSelect, Select, Stack, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ChatFormSettings } from '../../../contract/chat';
import type { LocalText } from '../../../core/forms';
import { URGENCIES } from '../../../core/tickets';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from '../Workshop.module.css';

type Read = ChatFormSettings & {
  services: { id: string; title: LocalText; notInChat: LocalText | null }[];
};
type Presets = ChatFormSettings['presets'];
const FIELDS = ['requester', 'service', 'team', 'assignee', 'urgency'] as const;

/** What stands in the form before anybody has chosen. */
function PresetsOf({
  presets,
  services,
  onChange,
}: {
  presets: Presets;
  services: Read['services'];
  onChange(presets: Presets): void;
}) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const choices = {
    service: services.map(({ id, title }) => ({ value: id, label: local(title) })),
    team: teams
      .filter(({ isConfidential }) => !isConfidential)
      .map(({ id, name }) => ({ value: id, label: local(name) })),
    urgency: URGENCIES.map((value) => ({ value, label: t(`urgencies/${value}`) })),
  };
  return (
    <Fieldset legend={t('rooms/setUp/presets')}>
      <Stack gap="xs">
        {(['service', 'team', 'urgency'] as const).map((name) => (
          <Select
            key={name}
            clearable
            searchable
            label={t(`rooms/setUp/preset/${name}`)}
            placeholder={t('rooms/setUp/noPreset')}
            data={choices[name]}
            value={presets[name]}
            onChange={(value) => onChange({ ...presets, [name]: value })}
          />
        ))}
      </Stack>
    </Fieldset>
  );
}

function Settings({ settings: { services, ...settings } }: { settings: Read }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  // A service whose form no longer fits is not offered, and would be refused.
  const fitting = services.filter(({ notInChat }) => notInChat === null);
  const [wanted, setWanted] = useState({
    ...settings,
    formServiceIds: settings.formServiceIds.filter((id) => fitting.some((service) => service.id === id)),
  });
  const unfit = services.filter(({ notInChat }) => notInChat !== null);
  const save = useMutation({
    mutationFn: () => call(api.chat.saveSettings, { body: wanted }),
    onSuccess: () => notifications.show({ message: t('rooms/saved') }),
    onSettled: () => client.invalidateQueries({ queryKey: ['chatSettings'] }),
  });
  return (
    <Stack gap="sm" maw={620}>
      <Group grow>
        {(['en', 'pt'] as const).map((language) => (
          <TextInput
            key={language}
            label={t('rooms/setUp/formName', { language })}
            value={wanted.name[language]}
            onChange={({ target }) =>
              setWanted({ ...wanted, name: { ...wanted.name, [language]: target.value } })
            }
          />
        ))}
      </Group>
      <Checkbox
        label={t('rooms/setUp/isOn')}
        checked={wanted.isOn}
        onChange={({ target }) => setWanted({ ...wanted, isOn: target.checked })}
      />
      <Select
        label={t('rooms/setUp/seenBy')}
        allowDeselect={false}
        data={(['everyone', 'agents'] as const).map((value) => ({ value, label: t(`rooms/setUp/${value}`) }))}
        value={wanted.seenBy}
        onChange={(value) => setWanted({ ...wanted, seenBy: value as ChatFormSettings['seenBy'] })}
      />
      <Checkbox.Group
        label={t('rooms/setUp/fields')}
        value={wanted.fields}
        onChange={(fields) =>
          setWanted({ ...wanted, fields: FIELDS.filter((field) => fields.includes(field)) })
        }
      >
        <Group gap="md" mt={4}>
          {FIELDS.map((field) => (
            <Checkbox key={field} value={field} label={t(`rooms/setUp/field/${field}`)} />
          ))}
        </Group>
      </Checkbox.Group>
      <PresetsOf
        presets={wanted.presets}
        services={services}
        onChange={(presets) => setWanted({ ...wanted, presets })}
      />
      <MultiSelect
        searchable
        label={t('rooms/setUp/forms')}
        description={t('rooms/setUp/formsHelp')}
        data={fitting.map(({ id, title }) => ({ value: id, label: local(title) }))}
        value={wanted.formServiceIds}
        onChange={(formServiceIds) => setWanted({ ...wanted, formServiceIds })}
      />
      {unfit.length > 0 && (
        <p className={classes.lead}>
          {t('rooms/setUp/notInChat', {
            services: unfit
              .map(({ title, notInChat }) => `${local(title)} (${local(notInChat!)})`)
              .join(', '),
          })}
        </p>
      )}
      <ProblemNote error={save.error} />
      <Group>
        <Button loading={save.isPending} onClick={() => save.mutate()}>
          {t('common/save')}
        </Button>
      </Group>
    </Stack>
  );
}

/** The form by which a message becomes a ticket: its name, what it asks for, who finds it. */
export function FormSettings() {
  const { t } = useWords();
  const { data, error } = useQuery({ queryKey: ['chatSettings'], queryFn: () => call(api.chat.settings) });
  return (
    <section className={classes.section}>
      <h2>{t('rooms/setUp/form')}</h2>
      <ProblemNote error={error} />
      {data && <Settings key={data.version} settings={data} />}
    </section>
  );
}
