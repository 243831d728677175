import { Button, Checkbox, Group, Modal, MultiSelect, NumberInput, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Target } from '../../../contract/targets';
import type { TargetNotice } from '../../../core/targets';
import { READERS } from '../../../core/telling';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from './Promises.module.css';
import { useTargetWords } from './useTargetWords';

/** Nobody is called by name where time runs out. */
const CALLED = READERS.filter((reader) => reader !== 'mentioned');

type Props = {
  target: Target;
  isSaving: boolean;
  error: unknown;
  onSave(notices: TargetNotice[]): void;
  onClose(): void;
};

const NEW: TargetNotice = {
  percent: 90,
  tell: ['assignee'],
  words: null,
  handTo: null,
  raisesPriority: false,
};

/** What a promise does as its time runs out: a line a share. */
export function NoticesForm({ target, isSaving, error, onSave, onClose }: Props) {
  const { t } = useWords();
  const [notices, setNotices] = useState(target.notices);
  const change = (at: number, part: Partial<TargetNotice>): void =>
    setNotices(notices.map((notice, i) => (i === at ? { ...notice, ...part } : notice)));
  const isRepeated = new Set(notices.map(({ percent }) => percent)).size < notices.length;
  return (
    <Modal
      opened
      onClose={onClose}
      size="xl"
      title={`${target.definition.name}: ${t('workshop/target/edit')}`}
    >
      {notices.map((notice, i) => (
        <NoticeLine
          // A line has no other name than its place.
          key={i}
          notice={notice}
          onChange={(part) => change(i, part)}
          onRemove={() => setNotices(notices.filter((_, at) => at !== i))}
        />
      ))}
      {isRepeated && <p role="alert">{t('workshop/fields/repeated')}</p>}
      <ProblemNote error={error} />
      <Group justify="space-between" mt="md">
        <Button variant="default" size="xs" onClick={() => setNotices([...notices, NEW])}>
          {t('workshop/target/add')}
        </Button>
        <Button disabled={isRepeated} loading={isSaving} onClick={() => onSave(notices)}>
          {t('workshop/saveNow')}
        </Button>
      </Group>
    </Modal>
  );
}

function NoticeLine({
  notice,
  onChange,
  onRemove,
}: {
  notice: TargetNotice;
  onChange(part: Partial<TargetNotice>): void;
  onRemove(): void;
}) {
  const { t, local } = useWords();
  const { teams } = useTargetWords();
  const { percent, tell, words, handTo, raisesPriority } = notice;
  const write = (language: 'en' | 'pt', text: string): void => {
    const next = { en: words?.en ?? '', pt: words?.pt ?? '', [language]: text };
    onChange({ words: next.en === '' && next.pt === '' ? null : next });
  };
  return (
    <div className={classes.notice}>
      <NumberInput
        size="xs"
        label={t('workshop/target/percent')}
        min={1}
        max={1000}
        value={percent}
        onChange={(value) => onChange({ percent: Number(value) || 1 })}
      />
      <MultiSelect
        size="xs"
        label={t('workshop/target/tell')}
        data={CALLED.map((value) => ({ value, label: t(`workshop/target/readers/${value}`) }))}
        value={tell}
        onChange={(value) => onChange({ tell: value })}
      />
      <Select
        size="xs"
        clearable
        label={t('workshop/target/handTo')}
        placeholder={t('workshop/target/nobody')}
        data={teams.map(({ id, name }) => ({ value: id, label: local(name) }))}
        value={handTo?.teamId ?? null}
        onChange={(teamId) => onChange({ handTo: teamId ? { teamId, groupId: null, personId: null } : null })}
      />
      <span />
      <TextInput
        size="xs"
        label={`${t('workshop/target/words')}, en`}
        value={words?.en ?? ''}
        onChange={({ target }) => write('en', target.value)}
      />
      <TextInput
        size="xs"
        label="pt"
        value={words?.pt ?? ''}
        onChange={({ target }) => write('pt', target.value)}
      />
      <span />
      <Checkbox
        size="xs"
        label={t('workshop/target/raises')}
        checked={raisesPriority}
        onChange={({ target }) => onChange({ raisesPriority: target.checked })}
      />
      <Button size="compact-xs" variant="subtle" style={{ justifySelf: 'end' }} onClick={onRemove}>
        {t('workshop/target/removeNotice')}
      </Button>
    </div>
  );
}
