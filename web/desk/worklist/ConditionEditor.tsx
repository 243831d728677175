import { Button, MultiSelect, TagsInput } from '@mantine/core';
import type { Condition } from '../../../core/conditions';
import { getListField, LIST_FIELD_NAMES, listOps, ME, type ListFieldName } from '../../../core/worklist';
import { useWords } from '../../messages/useWords';
import { InlineRemove, InlineSelect, InlineText } from '../../ui/Inline';
import { INSTANTS, NOTHING, useFieldWords } from '../../ui/useFieldWords';
import classes from './ListEditor.module.css';

type Leaf = Extract<Condition, { op: string }>;
/** What conditions may ask for: of lists, or of what else uses them. `withWords`: texts may be asked for words in any form. */
export type ConditionScope = {
  names: readonly ListFieldName[];
  withWords: boolean;
  /** What is said where nothing is asked, and before what is. */
  lead: { none: string; where: string };
  /** What stands in a group at first. */
  firstGroup: readonly [ListFieldName, ListFieldName];
};
const LISTS: ConditionScope = {
  ...{ names: LIST_FIELD_NAMES, withWords: false, firstGroup: ['priority', 'isLate'] },
  lead: { none: 'lists/everythingThere', where: 'lists/workWhere' },
};
type LeafProps = { leaf: Leaf; scope: ConditionScope; onChange(leaf: Leaf): void };

const MOST_DEPTH = 2;
const isLeaf = (condition: Condition): condition is Leaf => 'op' in condition;

/** What a field is asked at first. */
function firstLeaf(name: string, { withWords }: ConditionScope): Leaf {
  const field = getListField(name)!;
  const ops = listOps(field, withWords);
  const op = field.kind === 'flag' ? 'is' : ops.includes('in') ? 'in' : ops[0]!;
  return toLeaf(name, op, undefined);
}

function toLeaf(name: string, op: Leaf['op'], value: unknown): Leaf {
  const kind = getListField(name)?.kind;
  if (op === 'empty' || op === 'notEmpty') return { field: name, op };
  const first: Record<string, unknown> = { instant: '@now', number: 0, flag: true, people: ME, text: '' };
  const isList = op === 'in' || op === 'notIn' || op === 'hasAny' || op === 'hasAll';
  const given = isList ? (Array.isArray(value) ? value : []) : Array.isArray(value) ? undefined : value;
  return { field: name, op, value: given ?? first[kind ?? 'text'] ?? null } as Leaf;
}

/** "is" one thing is kept as "is one of" it: one question fewer to choose between. */
function asList(leaf: Leaf): Leaf {
  const kind = getListField(leaf.field)?.kind;
  if ((leaf.op !== 'is' && leaf.op !== 'isNot') || kind === 'flag' || kind === 'text' || kind === 'number')
    return leaf;
  return { field: leaf.field, op: leaf.op === 'is' ? 'in' : 'notIn', value: [leaf.value as string | null] };
}

function Value({ leaf, scope, onChange }: LeafProps) {
  const { t } = useWords();
  const { optionsOf, valueWords } = useFieldWords();
  if (!('value' in leaf)) return null;
  const { field, op, value } = leaf;
  const kind = getListField(field)?.kind;
  const label = t('lists/value');
  const set = (next: unknown): void => onChange({ field, op, value: next } as Leaf);
  // Outside of lists nobody looks: nothing stands for whoever does.
  const options = optionsOf(field).filter((each) => scope === LISTS || !each.value.startsWith('@'));
  if (op === 'hasAny' || op === 'hasAll')
    return (
      <TagsInput
        size="xs"
        className={classes.values}
        aria-label={label}
        placeholder={value.length === 0 ? t('lists/wordsEach') : ''}
        value={value}
        onChange={set}
      />
    );
  if (op === 'in' || op === 'notIn')
    return (
      <MultiSelect
        size="xs"
        className={classes.values}
        aria-label={label}
        searchable
        hidePickedOptions
        placeholder={value.length === 0 ? t('common/choose') : ''}
        data={options}
        value={value.map((each) => String(each ?? NOTHING))}
        onChange={(chosen) => set(chosen.map((each) => (each === NOTHING ? null : each)))}
      />
    );
  if (kind === 'flag')
    return (
      <InlineSelect
        {...{ label, isFixed: false, value: String(value) }}
        options={[true, false].map((each) => ({
          value: String(each),
          label: t(each ? 'common/yes' : 'common/no'),
        }))}
        onChange={(next) => set(next === 'true')}
      />
    );
  if (kind === 'instant') {
    const known = [...INSTANTS, ...(INSTANTS.some((each) => each === value) ? [] : [String(value)])];
    return (
      <InlineSelect
        {...{ label, isFixed: false, value: String(value) }}
        options={known.map((each) => ({ value: each, label: valueWords(field, each) }))}
        onChange={set}
      />
    );
  }
  if (kind === 'people')
    return <InlineSelect {...{ label, isFixed: false, value: String(value), options, onChange: set }} />;
  return (
    <InlineText
      {...{ label, isFixed: false }}
      isSmall={kind === 'number'}
      value={String(value ?? '')}
      onChange={(text) => set(kind === 'number' ? Number(text) || 0 : text)}
    />
  );
}

/** One condition as a sentence: which fact, how, and what. */
function LeafSentence({ leaf: given, scope, onChange }: LeafProps) {
  const { t } = useWords();
  const { fieldName, opName } = useFieldWords();
  const leaf = asList(given);
  const field = getListField(leaf.field);
  const names = scope.names
    .map((value) => ({ value, label: fieldName(value) }))
    .sort((one, other) => one.label.localeCompare(other.label));
  if (!field) names.push({ value: leaf.field as never, label: t('lists/gone', { field: leaf.field }) });
  const ops = field
    ? listOps(field, scope.withWords).filter(
        (op) => !(listOps(field).includes('in') && (op === 'is' || op === 'isNot')),
      )
    : [];
  return (
    <>
      <InlineSelect
        label={t('lists/field')}
        value={leaf.field}
        options={names}
        isFixed={false}
        onChange={(name) => onChange(firstLeaf(name, scope))}
      />{' '}
      {field && field.kind !== 'flag' && (
        <InlineSelect
          label={t('lists/how')}
          value={leaf.op}
          options={ops.map((op) => ({ value: op, label: opName(field, op) }))}
          isFixed={ops.length < 2}
          onChange={(op) =>
            onChange(toLeaf(leaf.field, op as Leaf['op'], 'value' in leaf ? leaf.value : undefined))
          }
        />
      )}{' '}
      <Value leaf={leaf} scope={scope} onChange={onChange} />
    </>
  );
}

type Props = {
  condition: Condition;
  depth?: number;
  scope?: ConditionScope;
  onChange(condition: Condition): void;
};

/** Conditions as sentences: all of these, or any of these, with groups inside. */
export function ConditionEditor({ condition, depth = 0, scope = LISTS, onChange }: Props) {
  const { t } = useWords();
  const { toPhrase } = useFieldWords();
  const group: Condition = 'all' in condition || 'any' in condition ? condition : { all: [condition] };
  const isAll = 'all' in group;
  const parts = isAll ? group.all : group.any;
  const set = (next: Condition[], all = isAll): void => onChange(all ? { all: next } : { any: next });
  const put = (i: number) => (part: Condition) => set(parts.with(i, part));
  return (
    <div className={classes.group} role="group" aria-label={t(isAll ? 'lists/allOf' : 'lists/anyOf')}>
      <div>
        {t(parts.length === 0 ? scope.lead.none : depth === 0 ? scope.lead.where : 'lists/where')}{' '}
        {parts.length > 1 && (
          <InlineSelect
            label={t('lists/join')}
            value={isAll ? 'all' : 'any'}
            isFixed={false}
            options={['all', 'any'].map((value) => ({ value, label: t(`lists/${value}Of`) }))}
            onChange={(value) => set(parts, value === 'all')}
          />
        )}
      </div>
      <ul>
        {parts.map((part, i) => (
          <li key={i}>
            {isLeaf(part) ? (
              <LeafSentence leaf={part} scope={scope} onChange={put(i)} />
            ) : 'not' in part ? (
              isLeaf(part.not) ? (
                <>
                  {t('lists/not')}{' '}
                  <LeafSentence leaf={part.not} scope={scope} onChange={(not) => put(i)({ not })} />
                </>
              ) : (
                <em>{toPhrase(part)}</em>
              )
            ) : (
              <ConditionEditor condition={part} depth={depth + 1} scope={scope} onChange={put(i)} />
            )}
            <InlineRemove name={toPhrase(part)} onRemove={() => set(parts.toSpliced(i, 1))} />
          </li>
        ))}
      </ul>
      <Button size="compact-xs" variant="default" onClick={() => set([...parts, firstLeaf('state', scope)])}>
        {t('lists/addPart')}
      </Button>{' '}
      {depth < MOST_DEPTH && (
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() => set([...parts, { any: scope.firstGroup.map((name) => firstLeaf(name, scope)) }])}
        >
          {t('lists/addGroup')}
        </Button>
      )}
    </div>
  );
}
