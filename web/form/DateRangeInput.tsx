import { Input } from '@mantine/core';
import type { ReactNode } from 'react';
import type { DateRange } from '../../core/forms';
import { useWords } from '../messages/useWords';
import classes from './form.module.css';
import { DayInput } from '../ui/DayInput';

type Props = {
  id: string;
  label: ReactNode;
  description?: ReactNode;
  error?: ReactNode;
  value: DateRange | null;
  onChange(value: DateRange | null): void;
};

/** Two days; both belong to what is meant. */
export function DateRangeInput({ id, label, description, error, value, onChange }: Props) {
  const { t } = useWords();
  const { from, to } = value ?? { from: '', to: '' };
  const set = (range: DateRange): void => onChange(range.from === '' && range.to === '' ? null : range);
  return (
    <Input.Wrapper {...{ label, description, error, labelProps: { htmlFor: id } }}>
      <div className={classes.pair}>
        <DayInput id={id} w={170} value={from} onChange={(day) => set({ from: day, to })} />
        <span>{t('form/until')}</span>
        <DayInput
          w={170}
          aria-label={t('form/until')}
          value={to}
          {...(from && { min: from })}
          onChange={(day) => set({ from, to: day })}
        />
      </div>
    </Input.Wrapper>
  );
}
