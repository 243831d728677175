import { Button, Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { Fragment, type ReactNode } from 'react';
import {
  COLUMN_KINDS,
  KNOWN_FACTS,
  type Choice,
  type Column,
  type ColumnKind,
  type FieldKind,
  type FormField,
  type KnownFact,
  type LocalText,
} from '../../../core/forms';
import { useWords } from '../../messages/useWords';
import { BothLanguages } from '../../ui/BothLanguages';
import { ConditionSentence } from './ConditionSentence';
import { InlineRemove } from '../../ui/Inline';
import classes from './services.module.css';

type Props = {
  field: FormField;
  /** What is asked before it: its conditions may ask for that. */
  before: FormField[];
  isFixed: boolean;
  onChange(field: FormField): void;
  onRemove(): void;
  onClose(): void;
};

const BOUNDED: FieldKind[] = ['text', 'longText', 'number', 'money', 'choices', 'table'];
const FILLED: FieldKind[] = ['text', 'place'];

/** A field without what was left empty: nothing is stored where nothing is said. */
function tidy(field: FormField): FormField {
  const isNothing = (value: unknown): boolean =>
    value === undefined ||
    value === '' ||
    (typeof value === 'object' &&
      value !== null &&
      'en' in value &&
      'pt' in value &&
      value.en === '' &&
      value.pt === '');
  return Object.fromEntries(
    Object.entries(field).filter(([key, value]) => key === 'label' || key === 'name' || !isNothing(value)),
  ) as FormField;
}

const EMPTY = { en: '', pt: '' };

/** All that can be said of one question. */
export function QuestionEditor({ field, before, isFixed, onChange, onRemove, onClose }: Props) {
  const { t } = useWords();
  const { kind } = field;
  const set = (part: { [Key in keyof FormField]?: FormField[Key] | undefined }): void =>
    onChange(tidy({ ...field, ...part } as FormField));
  const toNumber = (value: number | string): number | undefined => (value === '' ? undefined : Number(value));
  const isHeading = kind === 'heading';
  return (
    <div className={classes.details}>
      <BothLanguages
        label={t('services/form/question')}
        isFixed={isFixed}
        value={field.label}
        onChange={(label) => set({ label })}
      />
      <BothLanguages
        label={t('services/form/help')}
        isFixed={isFixed}
        value={field.help ?? EMPTY}
        onChange={(help) => set({ help })}
      />
      <TextInput
        size="xs"
        label={t('services/form/name')}
        readOnly={isFixed}
        value={field.name}
        onChange={({ target }) => set({ name: target.value })}
      />
      <TextInput
        size="xs"
        label={t('services/form/helpLink')}
        readOnly={isFixed}
        value={field.helpLink ?? ''}
        onChange={({ target }) => set({ helpLink: target.value })}
      />
      {isHeading ? (
        <Checkbox
          className={classes.whole}
          size="xs"
          label={t('services/form/startsPage')}
          checked={field.startsPage === true}
          disabled={isFixed}
          onChange={({ target }) => set({ startsPage: target.checked ? true : undefined })}
        />
      ) : (
        <Checkbox
          className={classes.whole}
          size="xs"
          label={t('services/form/isNeeded')}
          checked={field.needed}
          disabled={isFixed}
          onChange={({ target }) =>
            set({ needed: target.checked, ...(target.checked && { neededWhen: undefined }) })
          }
        />
      )}
      {!field.needed && !isHeading && (
        <p className={`${classes.sentence} ${classes.whole}`} style={{ margin: 0 }}>
          <ConditionSentence
            lead={{ plain: t('services/leads/needed'), when: t('services/leads/neededWhen') }}
            none={t('services/form/never')}
            condition={field.neededWhen}
            fields={before}
            isFixed={isFixed}
            onChange={(neededWhen) => set({ neededWhen })}
          />
        </p>
      )}
      <p className={`${classes.sentence} ${classes.whole}`} style={{ margin: 0 }}>
        <ConditionSentence
          lead={{ plain: t('services/leads/asked'), when: t('services/leads/askedWhen') }}
          none={t('services/form/always')}
          condition={field.shownWhen}
          fields={before}
          isFixed={isFixed}
          onChange={(shownWhen) => set({ shownWhen })}
        />
      </p>
      {FILLED.includes(kind) && (
        <NativeSelect
          size="xs"
          label={t('services/form/filledFrom')}
          disabled={isFixed}
          value={field.filledFrom ?? ''}
          data={[
            { value: '', label: t('services/form/nothing') },
            ...KNOWN_FACTS.map((value) => ({ value, label: t(`services/form/facts/${value}`) })),
          ]}
          onChange={({ target }) => set({ filledFrom: (target.value || undefined) as KnownFact | undefined })}
        />
      )}
      {(FILLED.includes(kind) || kind === 'number') && (
        <TextInput
          size="xs"
          label={t('services/form/usual')}
          readOnly={isFixed}
          value={String(field.default ?? '')}
          onChange={({ target }) =>
            set({
              default: kind === 'number' && target.value !== '' ? Number(target.value) || 0 : target.value,
            })
          }
        />
      )}
      {BOUNDED.includes(kind) && (
        <>
          <NumberInput
            size="xs"
            label={t('services/form/least')}
            readOnly={isFixed}
            value={field.least ?? ''}
            onChange={(value) => set({ least: toNumber(value) })}
          />
          <NumberInput
            size="xs"
            label={t('services/form/most')}
            readOnly={isFixed}
            value={field.most ?? ''}
            onChange={(value) => set({ most: toNumber(value) })}
          />
        </>
      )}
      {kind === 'number' && (
        <BothLanguages
          label={t('services/form/unit')}
          isFixed={isFixed}
          value={field.unit ?? EMPTY}
          onChange={(unit) => set({ unit })}
        />
      )}
      {kind === 'asset' && (
        <TextInput
          size="xs"
          label={t('services/form/assetKind')}
          readOnly={isFixed}
          value={field.assetKind ?? ''}
          onChange={({ target }) => set({ assetKind: target.value })}
        />
      )}
      {kind === 'text' && (
        <>
          <TextInput
            className={classes.whole ?? ''}
            size="xs"
            label={t('services/form/pattern')}
            readOnly={isFixed}
            value={field.pattern ?? ''}
            onChange={({ target }) => set({ pattern: target.value })}
          />
          {field.pattern !== undefined && (
            <BothLanguages
              label={t('services/form/patternWords')}
              isFixed={isFixed}
              value={field.patternWords ?? EMPTY}
              onChange={(patternWords) => set({ patternWords })}
            />
          )}
        </>
      )}
      {(kind === 'choice' || kind === 'choices') && (
        <Choices choices={field.choices ?? []} isFixed={isFixed} onChange={(choices) => set({ choices })} />
      )}
      {kind === 'table' && (
        <Columns columns={field.columns ?? []} isFixed={isFixed} onChange={(columns) => set({ columns })} />
      )}
      {!isFixed && (
        <div className={`${classes.whole} ${classes.leg}`}>
          <Button size="compact-sm" onClick={onClose}>
            {t('services/form/close')}
          </Button>
          <Button size="compact-sm" variant="subtle" color="gray" onClick={onRemove}>
            {t('services/form/remove')}
          </Button>
        </div>
      )}
    </div>
  );
}

type LabelledProps = {
  place: number;
  name: string;
  label: LocalText;
  isFixed: boolean;
  onLabel(label: LocalText): void;
  onRemove(): void;
  children: ReactNode;
};

/** One of several under a question: what it is stored as, its words, and the way out. */
function Labelled({ place, name, label, isFixed, onLabel, onRemove, children }: LabelledProps) {
  return (
    <div className={classes.leg} style={{ marginTop: 4, alignItems: 'flex-end' }}>
      {children}
      <div style={{ flex: 1 }}>
        <BothLanguages label={String(place)} isFixed={isFixed} value={label} onChange={onLabel} />
      </div>
      {!isFixed && <InlineRemove name={name} onRemove={onRemove} />}
    </div>
  );
}

function Choices({
  choices,
  isFixed,
  onChange,
}: {
  choices: Choice[];
  isFixed: boolean;
  onChange(choices: Choice[]): void;
}) {
  const { t } = useWords();
  const set = (i: number, part: Partial<Choice>): void =>
    onChange(choices.map((choice, at) => (at === i ? { ...choice, ...part } : choice)));
  return (
    <fieldset className={classes.whole} style={{ border: 0, padding: 0, margin: 0 }}>
      <legend>{t('services/form/choices')}</legend>
      {choices.map((choice, i) => (
        <Labelled
          key={i}
          place={i + 1}
          name={choice.label.en}
          label={choice.label}
          isFixed={isFixed}
          onLabel={(label) => set(i, { label })}
          onRemove={() => onChange(choices.filter((_, at) => at !== i))}
        >
          <TextInput
            size="xs"
            w={110}
            label={t('services/form/choiceValue')}
            readOnly={isFixed}
            value={choice.value}
            onChange={({ target }) => set(i, { value: target.value })}
          />
        </Labelled>
      ))}
      {!isFixed && (
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() => onChange([...choices, { value: `c${choices.length + 1}`, label: EMPTY }])}
        >
          {t('services/form/addChoice')}
        </Button>
      )}
    </fieldset>
  );
}

function Columns({
  columns,
  isFixed,
  onChange,
}: {
  columns: Column[];
  isFixed: boolean;
  onChange(columns: Column[]): void;
}) {
  const { t } = useWords();
  const set = (i: number, part: Partial<Column>): void =>
    onChange(columns.map((column, at) => (at === i ? { ...column, ...part } : column)));
  /** Choices are of a choice alone, and one has some. */
  const setKind = (i: number, kind: ColumnKind): void =>
    onChange(
      columns.map(({ choices, ...column }, at) =>
        at !== i
          ? { ...column, ...(choices && { choices }) }
          : {
              ...column,
              kind,
              ...(kind === 'choice' && { choices: choices ?? [{ value: 'c1', label: EMPTY }] }),
            },
      ),
    );
  return (
    <fieldset className={classes.whole} style={{ border: 0, padding: 0, margin: 0 }}>
      <legend>{t('services/form/columns')}</legend>
      {columns.map((column, i) => (
        <Fragment key={i}>
          <Labelled
            place={i + 1}
            name={column.name}
            label={column.label}
            isFixed={isFixed}
            onLabel={(label) => set(i, { label })}
            onRemove={() => onChange(columns.filter((_, at) => at !== i))}
          >
            <TextInput
              size="xs"
              w={100}
              label={t('services/form/name')}
              readOnly={isFixed}
              value={column.name}
              onChange={({ target }) => set(i, { name: target.value })}
            />
            <NativeSelect
              size="xs"
              w={110}
              label={t('services/form/kind')}
              disabled={isFixed}
              value={column.kind}
              data={COLUMN_KINDS.map((value) => ({ value, label: t(`services/form/kinds/${value}`) }))}
              onChange={({ target }) => setKind(i, target.value as ColumnKind)}
            />
          </Labelled>
          {column.kind === 'choice' && (
            <div className={classes.nested}>
              <Choices
                choices={column.choices ?? []}
                isFixed={isFixed}
                onChange={(choices) => set(i, { choices })}
              />
            </div>
          )}
        </Fragment>
      ))}
      {!isFixed && (
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() =>
            onChange([...columns, { name: `c${columns.length + 1}`, kind: 'text', label: EMPTY }])
          }
        >
          {t('services/form/addChoice')}
        </Button>
      )}
    </fieldset>
  );
}
