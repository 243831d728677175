import type { Condition } from '../../../core/conditions';
import type { FormField } from '../../../core/forms';
import { useSites, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { InlineRemove } from '../../ui/Inline';
import { ConditionSentence } from './ConditionSentence';
import { useAudienceWords } from './useAudienceWords';

/** What may be asked of a person, as questions of a form are. */
function usePersonFields(): FormField[] {
  const { t, local } = useWords();
  const { data: sites = [] } = useSites();
  const { data: teams = [] } = useTeams();
  const { departments, titles } = useAudienceWords();
  const field = (
    name: 'site' | 'department' | 'title' | 'vessel' | 'teams' | 'isLead' | 'isAgent',
    kind: FormField['kind'],
    choices?: { value: string; name: string }[],
  ): FormField => {
    const label = t(`services/audience/of/${name}`);
    return {
      ...{ name, kind, label: { en: label, pt: label }, needed: false },
      ...(choices && {
        choices: choices.map(({ value, name: said }) => ({ value, label: { en: said, pt: said } })),
      }),
    };
  };
  const plain = (words: string[]) => words.map((value) => ({ value, name: value }));
  return [
    field(
      'site',
      'choice',
      sites.map(({ id, name }) => ({ value: id, name })),
    ),
    field('department', 'choice', plain(departments)),
    field('title', 'choice', plain(titles)),
    field('vessel', 'text'),
    field(
      'teams',
      'choices',
      teams.map(({ id, name }) => ({ value: id, name: local(name) })),
    ),
    field('isLead', 'yesNo'),
    field('isAgent', 'yesNo'),
  ];
}

type Props = { when: Condition; isFixed: boolean; onChange(when: Condition | null): void };

/** People of whom several things are asked at once: “site is not Quell and job is Purser”. */
export function AudienceCondition({ when, isFixed, onChange }: Props) {
  const { t } = useWords();
  const fields = usePersonFields();
  const parts = 'all' in when ? when.all : [when];
  const set = (next: Condition[]): void =>
    onChange(next.length === 0 ? null : next.length === 1 ? next[0]! : { all: next });
  const sentence = {
    ...{ fields, isFixed, lead: { plain: '', when: '' } },
    none: t('services/audience/addFit'),
  };
  return (
    <>
      {parts.map((part, i) => (
        <span key={i}>
          {i > 0 && ` ${t('services/audience/and')} `}
          <ConditionSentence
            {...sentence}
            condition={part}
            onChange={(next) =>
              set(parts.flatMap((each, at) => (at === i ? (next === undefined ? [] : next) : each)))
            }
          />
          {!isFixed && parts.length > 1 && (
            <InlineRemove name={String(i + 1)} onRemove={() => set(parts.filter((_, at) => at !== i))} />
          )}
        </span>
      ))}{' '}
      {!isFixed && (
        <ConditionSentence
          {...sentence}
          condition={undefined}
          onChange={(next) => next && set([...parts, next])}
        />
      )}
    </>
  );
}
