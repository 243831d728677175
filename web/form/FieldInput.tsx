import { Checkbox, Input, NumberInput, Radio, Select, Stack, Textarea, TextInput } from '@mantine/core';
import type { ReactNode } from 'react';
import type { FileRef } from '../../contract/files';
import type {
  AnswerLink,
  AnswerValue,
  DateRange,
  FieldKind,
  FormField,
  Named,
  TableRow,
} from '../../core/forms';
import { useWords } from '../messages/useWords';
import { FilesField } from '../thread/FilesField';
import { LinksField } from '../ui/LinksField';
import { AssetInput } from './AssetInput';
import { DateRangeInput } from './DateRangeInput';
import classes from './form.module.css';
import { PersonInput } from './PersonInput';
import { TableInput } from './TableInput';
import { DayInput } from '../ui/DayInput';
import { TimeInput } from '../ui/TimeInput';

/** More choices than these are chosen from a list. */
const MOST_RADIOS = 6;
/** What is short to write; its question may be long all the same. */
const SHORT = { wrapper: { width: 220 } };

type Props = {
  field: FormField;
  value: AnswerValue | undefined;
  error: string | undefined;
  isNeeded: boolean;
  isFilled: boolean;
  files: FileRef[];
  /** For whom it is asked, where that is another. */
  forPerson: string | null;
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

function Help({ field, isFilled }: { field: FormField; isFilled: boolean }) {
  const { t, local } = useWords();
  const help = [
    field.help && local(field.help).replace(/\.$/, isFilled ? '' : '.'),
    isFilled ? t('service/filled') : null,
  ].filter(Boolean);
  return (
    <>
      {help.join(' · ')}{' '}
      {field.helpLink && (
        <a href={field.helpLink} target="_blank" rel="noreferrer noopener">
          {t('form/more')}
        </a>
      )}
    </>
  );
}

/** The parts that every kind of input shows alike. */
type Shared = { id: string; label: ReactNode; error: string | undefined; description?: ReactNode };
type Show = (shared: Shared, props: Props) => ReactNode;

const textOf = (value: AnswerValue | undefined): string => (typeof value === 'string' ? value : '');

function ChoiceInput({ shared, props }: { shared: Shared; props: Props }) {
  const { t, local } = useWords();
  const { field, value, onChange } = props;
  const isYesNo = field.kind === 'yesNo';
  const choices = isYesNo
    ? [true, false].map((each) => ({ value: String(each), label: t(each ? 'common/yes' : 'common/no') }))
    : (field.choices ?? []).map((choice) => ({ value: choice.value, label: local(choice.label) }));
  if (choices.length > MOST_RADIOS)
    return (
      <Select
        {...shared}
        searchable
        data={choices}
        value={textOf(value) || null}
        onChange={(chosen) => onChange(chosen)}
      />
    );
  return (
    <Radio.Group
      {...shared}
      value={typeof value === 'boolean' ? String(value) : textOf(value)}
      onChange={(chosen) => onChange(isYesNo ? chosen === 'true' : chosen)}
    >
      <Stack gap={6} mt={6}>
        {choices.map((choice) => (
          <Radio key={choice.value} {...choice} />
        ))}
      </Stack>
    </Radio.Group>
  );
}

function ChoicesInput({ shared, props: { field, value, onChange } }: { shared: Shared; props: Props }) {
  const { local } = useWords();
  return (
    <Checkbox.Group
      {...shared}
      value={(value as string[] | undefined) ?? []}
      onChange={(chosen) => onChange(chosen)}
    >
      <Stack gap={6} mt={6}>
        {(field.choices ?? []).map((choice) => (
          <Checkbox key={choice.value} value={choice.value} label={local(choice.label)} />
        ))}
      </Stack>
    </Checkbox.Group>
  );
}

function AmountInput({ shared, props: { field, value, onChange } }: { shared: Shared; props: Props }) {
  const { local } = useWords();
  const isMoney = field.kind === 'money';
  const scale = isMoney ? 100 : 1;
  return (
    <NumberInput
      {...shared}
      styles={SHORT}
      {...(isMoney && { suffix: ' €', decimalScale: 2 })}
      {...(field.unit && { suffix: ` ${local(field.unit)}` })}
      value={typeof value === 'number' ? value / scale : textOf(value)}
      onChange={(number) =>
        onChange(
          number === '' ? null : typeof number === 'number' ? Math.round(number * scale * 1e6) / 1e6 : number,
        )
      }
    />
  );
}

const INPUTS: Record<FieldKind, Show> = {
  text: (shared, { value, onChange }) => (
    <TextInput {...shared} value={textOf(value)} onChange={({ target }) => onChange(target.value)} />
  ),
  place: (shared, props) => INPUTS.text(shared, props),
  longText: (shared, { value, onChange }) => (
    <Textarea
      {...shared}
      autosize
      minRows={3}
      maxRows={12}
      value={textOf(value)}
      onChange={({ target }) => onChange(target.value)}
    />
  ),
  number: (shared, props) => <AmountInput {...{ shared, props }} />,
  money: (shared, props) => <AmountInput {...{ shared, props }} />,
  choice: (shared, props) => <ChoiceInput {...{ shared, props }} />,
  yesNo: (shared, props) => <ChoiceInput {...{ shared, props }} />,
  choices: (shared, props) => <ChoicesInput {...{ shared, props }} />,
  date: (shared, { value, onChange }) => (
    <DayInput {...shared} styles={SHORT} value={textOf(value)} onChange={onChange} />
  ),
  time: (shared, { value, onChange }) => (
    <TimeInput {...shared} styles={SHORT} value={textOf(value)} onChange={onChange} />
  ),
  dateRange: (shared, { value, onChange }) => (
    <DateRangeInput {...shared} value={(value as DateRange | null | undefined) ?? null} onChange={onChange} />
  ),
  person: (shared, { value, onChange }) => (
    <PersonInput {...shared} value={(value as Named | null | undefined) ?? null} onChange={onChange} />
  ),
  asset: (shared, { value, onChange, field, forPerson }) => (
    <AssetInput
      {...shared}
      kind={field.assetKind}
      forPerson={forPerson}
      value={(value as Named | null | undefined) ?? null}
      onChange={onChange}
    />
  ),
  table: (shared, { value, onChange, field }) => (
    <TableInput
      {...shared}
      columns={field.columns ?? []}
      rows={(value as TableRow[] | null | undefined) ?? []}
      onChange={onChange}
    />
  ),
  files: ({ id, label, error }, { field, files, onFiles }) => (
    <div id={id}>
      <div className={classes.legend}>{label}</div>
      <FieldFiles field={field} files={files} onFiles={onFiles} />
      {error && <Input.Error>{error}</Input.Error>}
    </div>
  ),
  links: ({ id, label, error }, { value, onChange }) => (
    <div id={id}>
      <div className={classes.legend}>{label}</div>
      <LinksField
        links={(value as AnswerLink[] | undefined) ?? []}
        onChange={(links) => onChange(links)}
        error={error}
      />
    </div>
  ),
  heading: (_, { field }) => <Heading field={field} />,
};

function FieldFiles({ field, files, onFiles }: Pick<Props, 'field' | 'files' | 'onFiles'>) {
  const { local } = useWords();
  return <FilesField label={local(field.label)} files={files} onChange={onFiles} />;
}

function Heading({ field }: { field: FormField }) {
  const { local } = useWords();
  return (
    <div className={classes.heading}>
      <h2>{local(field.label)}</h2>
      {(field.help ?? field.helpLink) && (
        <p>
          <Help field={field} isFilled={false} />
        </p>
      )}
    </div>
  );
}

/** One question of a form, by its kind. */
export function FieldInput(props: Props) {
  const { local } = useWords();
  const { field, error, isFilled, isNeeded } = props;
  const label = <FieldLabel text={local(field.label)} isNeeded={isNeeded} />;
  const hasHelp = Boolean(field.help) || Boolean(field.helpLink) || isFilled;
  const description = hasHelp ? { description: <Help field={field} isFilled={isFilled} /> } : {};
  return INPUTS[field.kind]({ id: `field-${field.name}`, label, error, ...description }, props);
}
