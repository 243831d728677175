import { Button, Group, NumberInput, SegmentedControl, Select } from '@mantine/core';
import type { RecordFilter } from '../../../contract/records';
import { SETTING_ENTRY_KINDS } from '../../../core/journal';
import { useWords } from '../../messages/useWords';
import { InstantInput } from '../../ui/InstantInput';
import { PersonPicker } from '../../ui/PersonPicker';
import { useKindWords } from '../programs/useKindWords';

const ONLY = ['all', 'tickets', 'settings', 'access'] as const;

type Props = {
  filter: RecordFilter;
  /** The name of who is asked for. */
  personName: string | null;
  onChange(filter: RecordFilter, personName?: string | null): void;
};

/** Which entries of the record are shown. */
export function Filter({ filter, personName, onChange }: Props) {
  const { t } = useWords();
  const ticketKinds = useKindWords();
  const settingKinds = SETTING_ENTRY_KINDS.map((kind) => ({
    value: kind,
    label: t(`records/does/${kind}`).replace(/\{\{\w+\}\}/g, '…'),
  }));
  const { person, kind, ticket, only, from, to } = filter;
  const set = (change: Partial<RecordFilter>): void => {
    const next = Object.entries({ ...filter, ...change }).filter(([, value]) => value !== undefined);
    onChange(Object.fromEntries(next));
  };
  return (
    <Group align="end" gap="sm" mb="sm">
      <SegmentedControl
        size="xs"
        aria-label={t('records/filter/which')}
        value={only ?? 'all'}
        data={ONLY.map((value) => ({ value, label: t(`records/filter/only/${value}`) }))}
        onChange={(value) => set({ only: value === 'all' ? undefined : value })}
      />
      <PersonPicker
        size="xs"
        label={
          person === undefined
            ? t('records/filter/person')
            : t('records/filter/who', { name: personName ?? person })
        }
        onPick={({ id, name }) => onChange({ ...filter, person: id }, name)}
      />
      <Select
        {...{ size: 'xs', w: 260, searchable: true, clearable: true, value: kind ?? null }}
        label={t('records/filter/kind')}
        data={[...settingKinds, ...ticketKinds]}
        onChange={(value) => set({ kind: (value ?? undefined) as RecordFilter['kind'] })}
      />
      <NumberInput
        {...{ size: 'xs', w: 130, hideControls: true, min: 1, allowDecimal: false, value: ticket ?? '' }}
        label={t('records/filter/ticket')}
        onChange={(value) => set({ ticket: typeof value === 'number' ? value : undefined })}
      />
      <InstantInput
        label={t('records/filter/from')}
        value={from ?? null}
        onChange={(at) => set({ from: at ?? undefined })}
      />
      <InstantInput
        label={t('records/filter/to')}
        value={to ?? null}
        onChange={(at) => set({ to: at ?? undefined })}
      />
      {Object.keys(filter).length > 0 && (
        <Button size="xs" variant="subtle" onClick={() => onChange({}, null)}>
          {t('records/filter/clear')}
        </Button>
      )}
    </Group>
  );
}
