import type { Condition } from '../../../core/conditions';
import type { FormField } from '../../../core/forms';
import { PRIORITIES } from '../../../core/tickets';
import { useWords } from '../../messages/useWords';
import { InlineSelect, InlineText } from '../../ui/Inline';
import classes from './services.module.css';

type Leaf = Extract<Condition, { op: string }>;
type Props = {
  condition: Condition | undefined;
  /** What may be asked for. */
  fields: FormField[];
  /** Whether the cost and the priority of the request may be asked for too. */
  withRequest?: boolean;
  /** What is said before it: where nothing is asked of any answer, and where something is. */
  lead: { plain: string; when: string };
  /** What stands in the blank where nothing is asked. */
  none: string;
  isFixed: boolean;
  onChange(condition: Condition | undefined): void;
};

const isLeaf = (condition: Condition): condition is Leaf => 'op' in condition;
const EURO = 100;

/** How a field may be compared, by what it holds. */
function operatorsOf(field: FormField | undefined, name: string): Leaf['op'][] {
  if (name === 'cost' || field?.kind === 'number' || field?.kind === 'money')
    return ['gt', 'gte', 'lt', 'lte', 'is'];
  if (field?.kind === 'choices') return ['contains', 'notEmpty', 'empty'];
  if (field?.kind === 'yesNo' || field?.kind === 'choice' || name === 'priority') return ['is', 'isNot'];
  if (field?.kind === 'text' || field?.kind === 'place') return ['is', 'contains', 'notEmpty', 'empty'];
  return ['notEmpty', 'empty'];
}

/** What stands in the value's blank at first. */
function firstValue(field: FormField | undefined, name: string): string | number | boolean {
  if (name === 'cost') return 500 * EURO;
  if (name === 'priority') return 'P1';
  switch (field?.kind) {
    case 'yesNo':
      return true;
    case 'choice':
    case 'choices':
      return field.choices?.[0]?.value ?? '';
    case 'number':
    case 'money':
      return 0;
    default:
      return '';
  }
}

function toLeaf(field: FormField | undefined, name: string, op: Leaf['op'], value?: unknown): Condition {
  if (op === 'empty' || op === 'notEmpty') return { field: name, op };
  return { field: name, op, value: value ?? firstValue(field, name) } as Condition;
}

/** One condition as a sentence: which answer, how, and what. */
export function ConditionSentence({
  condition,
  fields,
  withRequest = false,
  lead,
  none,
  isFixed,
  onChange,
}: Props) {
  const { t, local } = useWords();
  if (condition && !isLeaf(condition)) return <em>{t('services/condition/complex')}</em>;
  const name = condition?.field ?? '';
  const fieldOf = (wanted: string): FormField | undefined => fields.find((each) => each.name === wanted);
  const field = fieldOf(name);
  const names = [
    { value: '', label: none },
    ...fields.map((each) => ({ value: each.name, label: local(each.label) || each.name })),
    ...(withRequest ? ['cost', 'priority'] : []).map((each) => ({
      value: each,
      label: t(`services/condition/${each}`),
    })),
  ];
  // What is asked for and is not there stays to be seen.
  if (!names.some(({ value }) => value === name)) names.push({ value: name, label: name });
  const value = condition && 'value' in condition ? condition.value : null;
  const set = (next: unknown): void => onChange(toLeaf(field, name, condition!.op, next));
  return (
    <span className={classes.sentence}>
      {condition ? lead.when : lead.plain}{' '}
      <InlineSelect
        label={t('services/condition/field')}
        value={name}
        options={names}
        isFixed={isFixed}
        onChange={(next) =>
          onChange(
            next === '' ? undefined : toLeaf(fieldOf(next), next, operatorsOf(fieldOf(next), next)[0]!),
          )
        }
      />{' '}
      {condition && (
        <InlineSelect
          label={t('services/condition/how')}
          value={condition.op}
          options={[...new Set([...operatorsOf(field, name), condition.op])].map((op) => ({
            value: op,
            label: t(`services/condition/${op}`),
          }))}
          isFixed={isFixed}
          onChange={(op) => onChange(toLeaf(field, name, op as Leaf['op'], value ?? undefined))}
        />
      )}{' '}
      {condition && condition.op !== 'empty' && condition.op !== 'notEmpty' && (
        <ValueBlank {...{ field, name, isFixed, onChange: set }} value={value as string | number | boolean} />
      )}
    </span>
  );
}

function ValueBlank({
  field,
  name,
  value,
  isFixed,
  onChange,
}: {
  field: FormField | undefined;
  name: string;
  value: string | number | boolean;
  isFixed: boolean;
  onChange(value: unknown): void;
}) {
  const { t, local } = useWords();
  const label = t('services/condition/value');
  if (field?.kind === 'yesNo')
    return (
      <InlineSelect
        {...{ label, isFixed }}
        value={String(value)}
        options={[true, false].map((each) => ({
          value: String(each),
          label: t(`services/condition/${each ? 'yes' : 'no'}`),
        }))}
        onChange={(next) => onChange(next === 'true')}
      />
    );
  const choices =
    name === 'priority'
      ? PRIORITIES.map((each) => ({ value: each, label: each }))
      : field?.choices?.map((choice) => ({
          value: choice.value,
          label: local(choice.label) || choice.value,
        }));
  if (choices)
    return <InlineSelect {...{ label, isFixed, value: String(value), options: choices, onChange }} />;
  const isMoney = name === 'cost' || field?.kind === 'money';
  if (typeof value === 'number')
    return (
      <>
        <InlineText
          {...{ label, isFixed }}
          isSmall
          value={String(isMoney ? value / EURO : value)}
          onChange={(text) =>
            onChange(Math.round(Number(text.replace(',', '.')) * (isMoney ? EURO : 1)) || 0)
          }
        />
        {isMoney && ' €'}
      </>
    );
  return <InlineText {...{ label, isFixed, value: String(value), onChange }} />;
}
