import type { Condition } from '../../core/conditions';
import { getListField, ME, MY_GROUPS, MY_TEAMS, type ListField } from '../../core/worklist';
import { useServices, useSites, useTeams } from '../api/queries';
import { useWords } from '../messages/useWords';
import { useTimes } from './useTimes';

type Leaf = Extract<Condition, { op: string }>;
export type Option = { value: string; label: string };

/** Stands for nothing among choices, where a list of texts is wanted. */
export const NOTHING = '';

/** Words of choices that the application has elsewhere, by field. */
const WORDED: Record<string, string> = {
  state: 'states',
  heldFor: 'heldFor',
  impact: 'impacts',
  urgency: 'urgencies',
  via: 'doors',
};

/** Instants as conditions say them, relative to the present one. */
export const INSTANTS = [
  '@now',
  '@dayStart',
  '@dayEnd',
  '@now+4h',
  '@now+1d',
  '@now+7d',
  '@now-1h',
  '@now-1d',
  '@now-7d',
  '@now-30d',
  '@now-90d',
] as const;

/** Says what lists can be asked for: fields, questions and values, in words. */
export function useFieldWords() {
  const { t, local } = useWords();
  const times = useTimes();
  const { data: teams = [] } = useTeams();
  const { data: services } = useServices();
  const { data: sites = [] } = useSites();
  const fieldName = (name: string): string => t(`lists/fields/${name}`, { defaultValue: name });
  const opName = ({ kind }: ListField, op: Leaf['op']): string =>
    t(`lists/ops/${kind === 'instant' ? `${op}Time` : op}`, { defaultValue: t(`lists/ops/${op}`) });

  function choicesOf(name: string): Option[] {
    const field = getListField(name);
    switch (field?.kind) {
      case 'choice':
        return field.choices.map((value) => ({
          value,
          label:
            name === 'priority'
              ? value
              : WORDED[name]
                ? t(`${WORDED[name]}/${value}`)
                : t(`lists/choices/${value}`),
        }));
      case 'team':
        return [
          { value: MY_TEAMS, label: t('lists/myTeams') },
          ...teams.map(({ id, name: team }) => ({ value: id, label: local(team) })),
        ];
      case 'group':
        return [
          { value: MY_GROUPS, label: t('lists/myGroups') },
          ...teams.flatMap(({ groups }) =>
            groups.map(({ id, name: group }) => ({ value: id, label: group })),
          ),
        ];
      case 'service':
        return (services ?? []).map(({ id, title }) => ({ value: id, label: local(title) }));
      case 'site':
        return sites.map(({ id, name: site }) => ({ value: id, label: site }));
      case 'progress':
        return teams.flatMap(({ progressLabels }) =>
          progressLabels.map(({ id, name: label }) => ({ value: id, label: local(label) })),
        );
      case 'person': {
        const people = new Map(
          teams.flatMap(({ members }) => members.map((member) => [member.id, member.name])),
        );
        const named = [...people].sort(([, one], [, other]) => one.localeCompare(other));
        return [{ value: ME, label: t('lists/me') }, ...named.map(([value, label]) => ({ value, label }))];
      }
      case 'people':
        return [{ value: ME, label: t('lists/me') }];
      default:
        return [];
    }
  }

  function optionsOf(name: string): Option[] {
    const field = getListField(name);
    const isOptional = field !== null && 'mayBeNothing' in field;
    return [
      ...(isOptional
        ? [{ value: NOTHING, label: name === 'assigneeId' ? t('lists/nobody') : t('common/none') }]
        : []),
      ...choicesOf(name),
    ];
  }

  function valueWords(name: string, value: unknown): string {
    if (Array.isArray(value)) return value.map((each) => valueWords(name, each)).join(t('lists/orJoin'));
    if (typeof value === 'boolean') return t(value ? 'common/yes' : 'common/no');
    const kind = getListField(name)?.kind;
    if (kind === 'instant')
      return typeof value === 'number'
        ? times.when(value, Date.now())
        : t(`lists/instants/${String(value)}`, { defaultValue: String(value) });
    const options = optionsOf(name);
    return (
      options.find((option) => option.value === (value ?? NOTHING))?.label ??
      (typeof value === 'string' || typeof value === 'number' ? String(value) : '')
    );
  }

  /** A condition as a phrase. */
  function toPhrase(condition: Condition): string {
    if ('not' in condition) return t('lists/notPhrase', { what: toPhrase(condition.not) });
    if ('all' in condition)
      return condition.all.map(toPhrase).join(t('lists/andJoin')) || t('lists/anything');
    if ('any' in condition) return condition.any.map(toPhrase).join(t('lists/orJoin')) || t('lists/nothing');
    const field = getListField(condition.field);
    if (!field) return t('lists/gone', { field: condition.field });
    if (field.kind === 'flag' && 'value' in condition)
      return t(`lists/flags/${condition.field}.${condition.value ? 'yes' : 'no'}`, {
        defaultValue: `${fieldName(condition.field)}: ${valueWords(condition.field, condition.value)}`,
      });
    const said = 'value' in condition ? ` ${valueWords(condition.field, condition.value)}` : '';
    return `${fieldName(condition.field)} ${opName(field, condition.op)}${said}`;
  }

  return { fieldName, opName, optionsOf, valueWords, toPhrase };
}
