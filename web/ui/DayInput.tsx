import '@mantine/dates/styles.css';
import { DateInput, type DateInputProps } from '@mantine/dates';
import 'dayjs/locale/en-gb';
import 'dayjs/locale/pt';
import { now } from '../api/clock';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import { readDay } from './readDay';
import { toZonedText } from './zonedInstant';

type Props = Omit<DateInputProps, 'value' | 'onChange' | 'min' | 'max'> & {
  /** YYYY-MM-DD; '': none. */
  value: string;
  /** The first and the last day that may be chosen. */
  min?: string;
  max?: string;
  onChange(value: string): void;
};

const LOCALES = { en: 'en-gb', pt: 'pt' } as const;

/** A field for a day: typed as one is used to, or chosen in a calendar; shown with the month's name, so that nobody mistakes it. */
export function DayInput({ value, min, max, onChange, ...rest }: Props) {
  const { t, language } = useWords();
  const { timeZone } = useMe();
  return (
    <DateInput
      allowDeselect
      // Red is kept for what is past due.
      weekendDays={[]}
      locale={LOCALES[language]}
      valueFormat="D MMM YYYY"
      placeholder={t('dates/placeholder')}
      dateParser={(text) => readDay(text, { language, today: toZonedText(now(), timeZone).slice(0, 10) })}
      ariaLabels={{
        nextMonth: t('dates/nextMonth'),
        previousMonth: t('dates/previousMonth'),
        nextYear: t('dates/nextYear'),
        previousYear: t('dates/previousYear'),
        nextDecade: t('dates/nextDecade'),
        previousDecade: t('dates/previousDecade'),
        monthLevelControl: t('dates/toYear'),
        yearLevelControl: t('dates/toDecade'),
      }}
      {...rest}
      {...(min && { minDate: min })}
      {...(max && { maxDate: max })}
      value={value || null}
      onChange={(day) => onChange(day ?? '')}
    />
  );
}
