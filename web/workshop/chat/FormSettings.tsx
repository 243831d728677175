import { Button, Checkbox, Group, Select, Stack, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ChatFormSettings } from '../../../contract/chat';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from '../Workshop.module.css';

const FIELDS = ['requester', 'service', 'team', 'assignee', 'urgency'] as const;

function Settings({ settings }: { settings: ChatFormSettings }) {
  const { t } = useWords();
  const client = useQueryClient();
  const [wanted, setWanted] = useState(settings);
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
