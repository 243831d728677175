import { Group } from '@mantine/core';
import { useState } from 'react';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import { DayInput } from './DayInput';
import { TimeInput } from './TimeInput';
import { toZonedText, zonedInstant } from './zonedInstant';

type Props = {
  label: string;
  /** ms since 1970; null: none, or none that is whole. */
  value: number | null;
  error?: React.ReactNode;
  onChange(value: number | null): void;
};

/** A day that is chosen without a time means its morning. */
const MORNING = '09:00';
/** A whole day and a whole time are seen. */
const [DAY_WIDTH, TIME_WIDTH] = [140, 112];

/**
 * Fields for a day and a time in the viewer's zone. A time that does not exist, because the clocks are put forward then, is
 * said to be none; nothing else is put in its place.
 */
export function InstantInput({ label, value, error, onChange }: Props) {
  const { t } = useWords();
  const { timeZone } = useMe();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? (value === null ? 'T' : toZonedText(value, timeZone));
  const [day = '', time = ''] = shown.split('T');
  const instant = zonedInstant(shown, timeZone);
  const isInGap = instant !== null && toZonedText(instant, timeZone) !== shown;
  const set = (text: string): void => {
    const at = zonedInstant(text, timeZone);
    const exists = at !== null && toZonedText(at, timeZone) === text;
    setTyped(exists ? null : text);
    onChange(exists ? at : null);
  };
  return (
    <Group gap={6} align="flex-start" wrap="nowrap">
      <DayInput
        miw={DAY_WIDTH}
        label={label}
        value={day}
        error={isInGap ? t('fields/inGap') : error}
        onChange={(next) => set(next === '' ? 'T' : `${next}T${time || MORNING}`)}
      />
      <TimeInput
        miw={TIME_WIDTH}
        label={t('dates/time')}
        hoursInputLabel={t('dates/hours', { name: label })}
        minutesInputLabel={t('dates/minutes', { name: label })}
        value={time}
        onChange={(next) => set(`${day}T${next}`)}
      />
    </Group>
  );
}
