import { TextInput } from '@mantine/core';
import { useState } from 'react';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import { toZonedText, zonedInstant } from './zonedInstant';

type Props = {
  label: string;
  /** ms since 1970; null: none, or none that is whole. */
  value: number | null;
  error?: React.ReactNode;
  onChange(value: number | null): void;
};

/**
 * A field of date and time in the viewer's zone. A time that does not exist, because the clocks are put forward then, is
 * said to be none; nothing else is put in its place.
 */
export function InstantInput({ label, value, error, onChange }: Props) {
  const { t } = useWords();
  const { timeZone } = useMe();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? (value === null ? '' : toZonedText(value, timeZone));
  const instant = shown === '' ? null : zonedInstant(shown, timeZone);
  const isInGap = instant !== null && toZonedText(instant, timeZone) !== shown.slice(0, 16);
  return (
    <TextInput
      type="datetime-local"
      label={label}
      value={shown}
      error={isInGap ? t('fields/inGap') : error}
      onChange={({ target }) => {
        const text = target.value;
        const at = text === '' ? null : zonedInstant(text, timeZone);
        const exists = at !== null && toZonedText(at, timeZone) === text.slice(0, 16);
        setTyped(exists || text === '' ? null : text);
        onChange(exists ? at : null);
      }}
    />
  );
}
