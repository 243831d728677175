import { Group, NumberInput, Select } from '@mantine/core';
import { useState } from 'react';
import { compileCalendar, type CalendarSpec } from '../../../core/calendar';
import { useWords } from '../../messages/useWords';
import { LOCALES } from '../../../core/forms';
import { zonedInstant } from '../../ui/zonedInstant';
import { dateFormat } from '../../ui/dateFormat';
import { TimeInput } from '../../ui/TimeInput';
import { DayInput } from '../../ui/DayInput';

const HOUR = 3_600_000;
type Unit = 'days' | 'hours';

/** "What is two working days after Friday 16:00?", by the calendar as it is being edited. */
export function TryOut({ spec, first }: { spec: CalendarSpec; first: string }) {
  const { t, language } = useWords();
  const [count, setCount] = useState(2);
  const [unit, setUnit] = useState<Unit>('days');
  const [after, setAfter] = useState(first);
  const format = dateFormat(LOCALES[language], {
    ...{
      weekday: 'long',
      day: 'numeric',
      month: 'long',
      year: 'numeric',
      hour: '2-digit',
      minute: '2-digit',
    },
    hourCycle: 'h23',
    timeZone: spec.timeZone,
  });

  function answer(): string | null {
    try {
      const from = zonedInstant(after, spec.timeZone);
      if (from === null) return null;
      const ms = count * (unit === 'days' ? spec.hoursPerDay : 1) * HOUR;
      return t('workshop/calendar/tryIs', {
        when: format.format(compileCalendar(spec).addWorking(from, ms)),
      });
    } catch {
      return t('workshop/calendar/tryNever');
    }
  }
  return (
    <Group gap={8} align="center">
      <span>{t('workshop/calendar/tryWhat')}</span>
      <NumberInput
        size="xs"
        w={70}
        min={1}
        max={500}
        value={count}
        aria-label={t('workshop/calendar/tryDays')}
        onChange={(value) => setCount(Number(value) || 1)}
      />
      <Select
        size="xs"
        w={150}
        allowDeselect={false}
        aria-label={t('workshop/calendar/try')}
        data={(['days', 'hours'] as const).map((value) => ({
          value,
          label: t(`workshop/calendar/${value === 'days' ? 'tryDays' : 'tryHours'}`),
        }))}
        value={unit}
        onChange={(value) => setUnit(value as Unit)}
      />
      <span>{t('workshop/calendar/tryAfter')}</span>
      <DayInput
        size="xs"
        aria-label={t('workshop/calendar/tryAfter')}
        value={after.slice(0, 10)}
        onChange={(day) => setAfter(`${day}T${after.slice(11)}`)}
      />
      <TimeInput
        size="xs"
        aria-label={t('workshop/calendar/tryAfter')}
        value={after.slice(11, 16)}
        onChange={(time) => setAfter(`${after.slice(0, 10)}T${time}`)}
      />
      <strong role="status">{answer()}</strong>
    </Group>
  );
}
