import { NativeSelect } from '@mantine/core';
import { useWords } from '../messages/useWords';

const CHOICES = [7, 28, 90, 365];

/** Over how many days something is looked at. */
export function Period({ days, onChange }: { days: number; onChange(days: number): void }) {
  const { t } = useWords();
  return (
    <NativeSelect
      size="xs"
      w={170}
      mb="sm"
      aria-label={t('knowledge/period', { days })}
      value={days}
      data={CHOICES.map((choice) => ({ value: `${choice}`, label: t('knowledge/period', { days: choice }) }))}
      onChange={({ target }) => onChange(Number(target.value))}
    />
  );
}
