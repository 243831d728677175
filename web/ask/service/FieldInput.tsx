import { NumberInput, Radio, Select, Stack, Textarea, TextInput } from '@mantine/core';
import type { ReactNode } from 'react';
import type { FileRef } from '../../../contract/files';
import type { AnswerLink, AnswerValue, FormField } from '../../../core/forms';
import { useWords } from '../../messages/useWords';
import { FilesField } from '../../ui/FilesField';
import { LinksField } from '../../ui/LinksField';
import classes from './ServicePage.module.css';

/** More choices than these are chosen from a list. */
const MOST_RADIOS = 6;

type Props = {
  field: FormField;
  value: AnswerValue | undefined;
  error: string | undefined;
  isFilled: boolean;
  files: FileRef[];
  onFiles(files: FileRef[]): void;
  onChange(value: AnswerValue): void;
};

/** The question, and in words whether it is needed. */
export function FieldLabel({ text, isNeeded }: { text: string; isNeeded: boolean }): ReactNode {
  const { t } = useWords();
  return (
    <>
      {text} <span className={classes.needed}>{t(isNeeded ? 'common/needed' : 'common/ifYouCan')}</span>
    </>
  );
}

/** One question of a form, by its kind. */
export function FieldInput({ field, value, error, isFilled, files, onFiles, onChange }: Props) {
  const { t, local } = useWords();
  const label = <FieldLabel text={local(field.label)} isNeeded={field.needed} />;
  const help = [
    field.help && local(field.help).replace(/\.$/, isFilled ? '' : '.'),
    isFilled ? t('service/filled') : null,
  ]
    .filter(Boolean)
    .join(' · ');
  const shared = { id: `field-${field.name}`, label, error, ...(help && { description: help }) };
  const text = typeof value === 'string' ? value : '';
  const onText = ({ target }: { target: { value: string } }): void => onChange(target.value);
  switch (field.kind) {
    case 'longText':
      return <Textarea {...shared} autosize minRows={3} maxRows={12} value={text} onChange={onText} />;
    case 'number':
      return (
        <NumberInput
          {...shared}
          w={200}
          value={(value as number | undefined) ?? ''}
          onChange={(number) => onChange(number === '' ? null : number)}
        />
      );
    case 'date':
      return <TextInput {...shared} w={200} type="date" value={text} onChange={onText} />;
    case 'choice':
    case 'yesNo': {
      const choices =
        field.kind === 'choice'
          ? (field.choices ?? []).map((choice) => ({ value: choice.value, label: local(choice.label) }))
          : [true, false].map((each) => ({
              value: String(each),
              label: t(each ? 'common/yes' : 'common/no'),
            }));
      if (choices.length > MOST_RADIOS)
        return (
          <Select
            {...shared}
            searchable
            data={choices}
            value={text || null}
            onChange={(chosen) => onChange(chosen)}
          />
        );
      return (
        <Radio.Group
          {...shared}
          value={typeof value === 'boolean' ? String(value) : text}
          onChange={(chosen) => onChange(field.kind === 'yesNo' ? chosen === 'true' : chosen)}
        >
          <Stack gap={6} mt={6}>
            {choices.map((choice) => (
              <Radio key={choice.value} {...choice} />
            ))}
          </Stack>
        </Radio.Group>
      );
    }
    case 'files':
      return (
        <div>
          <div className={classes.legend}>{label}</div>
          <FilesField label={local(field.label)} files={files} onChange={onFiles} />
        </div>
      );
    case 'links':
      return (
        <div>
          <div className={classes.legend}>{label}</div>
          <LinksField
            links={(value as AnswerLink[] | undefined) ?? []}
            onChange={(links) => onChange(links)}
            error={error}
          />
        </div>
      );
    default:
      return <TextInput {...shared} value={text} onChange={onText} />;
  }
}
