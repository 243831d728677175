import { Textarea, TextInput } from '@mantine/core';
import { LANGUAGES, type LocalText } from '../../../core/forms';
import classes from './services.module.css';

type Props = {
  label: string;
  value: LocalText;
  isFixed: boolean;
  isLong?: boolean;
  onChange(value: LocalText): void;
};

/** The same words in each language, side by side. */
export function BothLanguages({ label, value, isFixed, isLong = false, onChange }: Props) {
  const Input = isLong ? Textarea : TextInput;
  return (
    <div className={`${classes.pair} ${classes.whole}`}>
      {LANGUAGES.map((language) => (
        <Input
          key={language}
          size="xs"
          label={`${label}, ${language}`}
          value={value[language]}
          readOnly={isFixed}
          lang={language}
          onChange={({ target }) => onChange({ ...value, [language]: target.value })}
        />
      ))}
    </div>
  );
}
