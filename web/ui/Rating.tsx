import { RATINGS } from '../../core/tickets';
import { SegmentedControl, Text } from '@mantine/core';
import { useId } from 'react';
import { useWords } from '../messages/useWords';

/** Five steps, each with its word. */
export function Rating({ value, onChange }: { value: number | null; onChange(value: number): void }) {
  const { t } = useWords();
  const id = useId();
  return (
    <div role="group" aria-labelledby={id}>
      <Text id={id} size="sm" fw={600} mb={4}>
        {t('ticket/rateLabel')}
      </Text>
      <SegmentedControl
        size="sm"
        value={value === null ? '' : String(value)}
        onChange={(step) => onChange(Number(step))}
        data={RATINGS.map((step) => ({ value: String(step), label: t(`ticket/rating/${step}`) }))}
      />
    </div>
  );
}
