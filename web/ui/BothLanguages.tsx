import { Textarea, TextInput } from '@mantine/core';
import { LANGUAGES, type LocalText } from '../../core/forms';
import classes from './BothLanguages.module.css';

type Props = {
  label: string;
  value: LocalText;
  isFixed: boolean;
  isLong?: boolean;
  onChange(value: LocalText): void;
};

/** The same words in each language, side by side. */
export function BothLanguages({ label, value, isFixed, isLong = false, onChange }: Props) {
  return (
    <div className={classes.pair}>
      {LANGUAGES.map((language) => {
        const field = {
          ...{ size: 'xs', label: `${label}, ${language}`, value: value[language], readOnly: isFixed },
          lang: language,
          onChange: ({ target }: { target: { value: string } }) =>
            onChange({ ...value, [language]: target.value }),
        };
        return isLong ? (
          <Textarea key={language} autosize minRows={2} maxRows={16} {...field} />
        ) : (
          <TextInput key={language} {...field} />
        );
      })}
    </div>
  );
}
