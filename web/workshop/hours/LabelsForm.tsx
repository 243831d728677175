import { ActionIcon, Button, Checkbox, Group, Modal, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { Team } from '../../../contract/people';
import { LANGUAGES } from '../../../core/forms';
import type { ProgressLabel } from '../../../core/tickets';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';

type Props = {
  team: Team;
  isSaving: boolean;
  error: unknown;
  onSave(labels: ProgressLabel[]): void;
  onClose(): void;
};

/** A team's own labels of how far something is; which of them count as finished is the team's to say. */
export function LabelsForm({ team, isSaving, error, onSave, onClose }: Props) {
  const { t, local } = useWords();
  const [labels, setLabels] = useState<ProgressLabel[]>(team.progressLabels);
  const set = (i: number, part: Partial<ProgressLabel>): void =>
    setLabels(labels.map((label, at) => (at === i ? { ...label, ...part } : label)));
  const isSaid = labels.every(({ name }) => LANGUAGES.every((language) => name[language].trim() !== ''));
  return (
    <Modal opened onClose={onClose} size="lg" title={`${local(team.name)}: ${t('workshop/team/labels')}`}>
      <p>{t('workshop/team/labelsLead')}</p>
      {labels.map((label, i) => (
        <Group key={label.id} mt={6} gap="xs" align="flex-end" wrap="nowrap">
          {LANGUAGES.map((language) => (
            <TextInput
              key={language}
              size="xs"
              label={`${i + 1}, ${language}`}
              value={label.name[language]}
              onChange={({ target }) => set(i, { name: { ...label.name, [language]: target.value } })}
            />
          ))}
          <Checkbox
            mb={6}
            size="xs"
            label={t('workshop/team/finished')}
            checked={label.isFinished}
            onChange={({ target }) => set(i, { isFinished: target.checked })}
          />
          <ActionIcon
            mb={2}
            variant="subtle"
            color="gray"
            aria-label={`${t('workshop/target/removeNotice')}: ${local(label.name)}`}
            onClick={() => setLabels(labels.filter((_, at) => at !== i))}
          >
            <IconX size={14} />
          </ActionIcon>
        </Group>
      ))}
      <ProblemNote error={error} />
      <Group justify="space-between" mt="md">
        <Button
          size="xs"
          variant="default"
          onClick={() =>
            setLabels([...labels, { id: nanoid(10), name: { en: '', pt: '' }, isFinished: false }])
          }
        >
          {t('workshop/target/add')}
        </Button>
        <Button disabled={!isSaid} loading={isSaving} onClick={() => onSave(labels)}>
          {t('workshop/saveNow')}
        </Button>
      </Group>
    </Modal>
  );
}
