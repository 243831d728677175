import { Button, Modal, Select, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { LocalText } from '../../../core/forms';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';

type Props = { copyOf?: { id: string; title: LocalText; teamId: string }; onClose(): void };
const KITS = ['question', 'broken', 'order'] as const;

/** Begins a service: from a ready set, or as a copy. */
export function NewService({ copyOf, onClose }: Props) {
  const { t, local } = useWords();
  const navigate = useNavigate();
  const me = useMe();
  const { data: teams = [] } = useTeams();
  const mine = teams.filter(({ mayEdit }) => mayEdit);
  const [title, setTitle] = useState<LocalText>({ en: '', pt: '' });
  const [chosen, setChosen] = useState<string | null>(copyOf?.teamId ?? null);
  const [kit, setKit] = useState<string>('question');
  const [key] = useState(() => nanoid());
  // Mostly it is for the team that its writer works in.
  const own = mine.find(({ id }) => me.teams.some((team) => team.teamId === id)) ?? mine[0];
  const teamId = mine.some(({ id }) => id === chosen) ? chosen : (own?.id ?? null);
  const begin = useMutation({
    mutationFn: () =>
      call(api.services.create, {
        key,
        body: { title, teamId: teamId!, from: copyOf ? { service: copyOf.id } : { kit } },
      }),
    onSuccess: async ({ id }) => {
      onClose();
      await navigate(`/workshop/services/${id}`);
    },
  });
  return (
    <Modal
      opened
      onClose={onClose}
      title={copyOf ? t('services/begin/copy', { name: local(copyOf.title) }) : t('services/begin/title')}
    >
      <TextInput
        data-autofocus
        label={t('services/begin/nameEn')}
        value={title.en}
        onChange={({ target }) => setTitle({ ...title, en: target.value })}
      />
      <TextInput
        mt="sm"
        label={t('services/begin/namePt')}
        value={title.pt}
        onChange={({ target }) => setTitle({ ...title, pt: target.value })}
      />
      <Select
        mt="sm"
        allowDeselect={false}
        label={t('services/begin/team')}
        data={mine.map(({ id, name }) => ({ value: id, label: local(name) }))}
        value={teamId}
        onChange={setChosen}
      />
      {!copyOf && (
        <Select
          mt="sm"
          allowDeselect={false}
          label={t('services/begin/from')}
          data={KITS.map((value) => ({ value, label: t(`services/begin/kits/${value}`) }))}
          value={kit}
          onChange={(value) => value && setKit(value)}
        />
      )}
      <ProblemNote error={begin.error} />
      <Button
        mt="md"
        disabled={title.en.trim() === '' || teamId === null}
        loading={begin.isPending}
        onClick={() => begin.mutate()}
      >
        {t('services/begin/go')}
      </Button>
    </Modal>
  );
}
