import { Input } from '@mantine/core';
import type { ReactNode } from 'react';
import type { DateRange } from '../../core/forms';
import { useWords } from '../messages/useWords';
import classes from './form.module.css';

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
        <Input
          id={id}
          w={170}
          type="date"
          value={from}
          onChange={({ target }) => set({ from: target.value, to })}
        />
        <span>{t('form/until')}</span>
        <Input
          w={170}
          type="date"
          aria-label={t('form/until')}
          value={to}
          onChange={({ target }) => set({ from, to: target.value })}
        />
      </div>
    </Input.Wrapper>
  );
}
