import '@mantine/dates/styles.css';
import { TimePicker, type TimePickerProps } from '@mantine/dates';
import { useWords } from '../messages/useWords';

type Props = Omit<TimePickerProps, 'value' | 'onChange'> & {
  /** HH:MM; '': none. */
  value: string;
  onChange(value: string): void;
};

const TO_MINUTES = 5;

/** A field for a time of day, from 00:00 to 23:59. */
export function TimeInput({ value, onChange, ...rest }: Props) {
  const { t } = useWords();
  const name = typeof rest.label === 'string' ? rest.label : (rest['aria-label'] ?? '');
  return (
    <TimePicker
      clearable
      hoursInputLabel={t('dates/hours', { name })}
      minutesInputLabel={t('dates/minutes', { name })}
      clearButtonProps={{ 'aria-label': t('dates/clear', { name }) }}
      {...rest}
      value={value}
      onChange={(time) => onChange(time.slice(0, TO_MINUTES))}
    />
  );
}
