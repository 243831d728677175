import { Button, Group, Modal, MultiSelect, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Team } from '../../../contract/people';
import type { OutOfHours } from '../../../core/hours';
import { PRIORITIES } from '../../../core/tickets';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';

type Props = {
  team: Team;
  isSaving: boolean;
  error: unknown;
  onSave(rule: OutOfHours): void;
  onClose(): void;
};

/** What becomes of a team's work while it is off, as a sentence to fill in. */
export function HoursForm({ team, isSaving, error, onSave, onClose }: Props) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const [rule, setRule] = useState<OutOfHours>(team.outOfHours);
  const change = (part: Partial<OutOfHours>): void => setRule({ ...rule, ...part });
  const write = (language: 'en' | 'pt', text: string): void => {
    const words = { en: rule.words?.en ?? '', pt: rule.words?.pt ?? '', [language]: text };
    change({ words: words.en === '' && words.pt === '' ? null : words });
  };
  return (
    <Modal opened onClose={onClose} size="lg" title={`${local(team.name)}: ${t('workshop/team/offHours')}`}>
      <Group grow align="flex-start">
        <Select
          clearable
          label={t('workshop/team/goesTo')}
          placeholder={t('workshop/team/waits')}
          data={teams
            .filter(({ id }) => id !== team.id)
            .map(({ id, name }) => ({ value: id, label: local(name) }))}
          value={rule.goesTo}
          onChange={(goesTo) =>
            change({ goesTo, priorities: goesTo && rule.priorities.length === 0 ? ['P1'] : rule.priorities })
          }
        />
        <MultiSelect
          label={t('workshop/team/priorities')}
          disabled={rule.goesTo === null}
          data={[...PRIORITIES]}
          value={rule.priorities}
          onChange={(priorities) => change({ priorities: priorities })}
        />
      </Group>
      <TextInput
        mt="sm"
        label={`${t('workshop/team/word')}, en`}
        description={t('workshop/team/wordHelp')}
        value={rule.words?.en ?? ''}
        onChange={({ target }) => write('en', target.value)}
      />
      <TextInput
        mt="sm"
        label={`${t('workshop/team/word')}, pt`}
        value={rule.words?.pt ?? ''}
        onChange={({ target }) => write('pt', target.value)}
      />
      <ProblemNote error={error} />
      <Group justify="flex-end" mt="md">
        <Button loading={isSaving} onClick={() => onSave(rule)}>
          {t('workshop/saveNow')}
        </Button>
      </Group>
    </Modal>
  );
}
