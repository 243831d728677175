import { Button, Checkbox, Modal, Select, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useCalendarList } from '../queries';

/** A new team, which begins with two promises. */
export function NewTeam({ onClose }: { onClose(): void }) {
  const { t } = useWords();
  const client = useQueryClient();
  const { data: calendars = [] } = useCalendarList();
  const [en, setEn] = useState('');
  const [pt, setPt] = useState('');
  const [calendarId, setCalendarId] = useState<string | null>(calendars[0]?.id ?? null);
  const [isConfidential, setConfidential] = useState(false);
  const [key] = useState(() => nanoid());
  const make = useMutation({
    mutationFn: () =>
      call(api.teams.create, { body: { name: { en, pt }, calendarId: calendarId!, isConfidential }, key }),
    onSuccess: async () => {
      notifications.show({ message: t('workshop/team/made', { name: en }) });
      for (const name of ['teams', 'targets', 'calendars'])
        await client.invalidateQueries({ queryKey: [name] });
      onClose();
    },
  });
  const problems = useProblems()(make.error);
  return (
    <Modal opened onClose={onClose} title={t('workshop/team/new').replace(' …', '')}>
      <TextInput
        label={t('workshop/team/nameEn')}
        value={en}
        error={problems['name.en']}
        onChange={({ target }) => setEn(target.value)}
      />
      <TextInput
        mt="sm"
        label={t('workshop/team/namePt')}
        value={pt}
        error={problems['name.pt']}
        onChange={({ target }) => setPt(target.value)}
      />
      <Select
        mt="sm"
        allowDeselect={false}
        label={t('workshop/team/works')}
        data={calendars.map(({ id, spec }) => ({ value: id, label: spec.name }))}
        value={calendarId}
        onChange={setCalendarId}
      />
      <Checkbox
        mt="sm"
        label={t('workshop/team/confidential')}
        checked={isConfidential}
        onChange={({ target }) => setConfidential(target.checked)}
      />
      {Object.keys(problems).length === 0 && <ProblemNote error={make.error} />}
      <Button mt="md" disabled={calendarId === null} loading={make.isPending} onClick={() => make.mutate()}>
        {t('workshop/saveNow')}
      </Button>
    </Modal>
  );
}
