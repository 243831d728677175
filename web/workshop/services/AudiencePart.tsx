import { MultiSelect } from '@mantine/core';
import type { AudiencePart as Group } from '../../../core/catalogue';
import { useSites, useTeams } from '../../api/queries';
import { AudienceCondition } from './AudienceCondition';
import { useAudienceWords } from './useAudienceWords';
import { useWords } from '../../messages/useWords';
import { InlineRemove, InlineSelect } from '../../ui/Inline';
import classes from './services.module.css';
import type { PartProps } from './useService';

const LISTED = ['site', 'department', 'title', 'team'] as const;
const PLAIN = ['onVessel', 'lead', 'agent', 'condition'] as const;
/** What is asked first of people of whom several things can be asked. */
const FIRST = { field: 'isAgent', op: 'is', value: true } as const;
type Listed = Extract<Group, { in: string[] }>;
const isListed = (group: Group): group is Listed => 'in' in group;

/** For whom a service is. */
export function AudiencePart({ definition, isFixed, change, count }: PartProps & { count: number }) {
  return (
    <AudienceSentence
      {...{ isFixed, count, audience: definition.audience }}
      onChange={(audience) => change({ audience })}
    />
  );
}

type Props = { audience: Group[]; isFixed: boolean; count: number; onChange(audience: Group[]): void };

/** Whom something is for: any of these groups; none named is everyone. */
export function AudienceSentence({ audience, isFixed, count, onChange }: Props) {
  const { t, local } = useWords();
  const { data: sites = [] } = useSites();
  const { data: teams = [] } = useTeams();
  const { departments, titles } = useAudienceWords();
  const set = (i: number, group: Group | null): void =>
    onChange(audience.flatMap((each, at) => (at === i ? (group ?? []) : each)));
  const choices: Record<Listed['by'], { value: string; label: string }[]> = {
    site: sites.map(({ id, name }) => ({ value: id, label: name })),
    team: teams.map(({ id, name }) => ({ value: id, label: local(name) })),
    department: departments.map((value) => ({ value, label: value })),
    title: titles.map((value) => ({ value, label: value })),
  };
  const add = (by: string): void => {
    const group = (LISTED as readonly string[]).includes(by)
      ? { by, in: [] }
      : by === 'condition'
        ? { by, when: FIRST }
        : { by };
    onChange([...audience, group as Group]);
  };
  const nameOf = ({ by }: Group): string => t(`services/audience/by/${by}`);
  return (
    <div className={classes.sentence}>
      {audience.length === 0 && <strong>{t('services/audience/everyone')}</strong>}
      {audience.map((group, i) => (
        <span key={i}>
          {i > 0 && ` ${t('services/audience/or')} `}
          <strong>{nameOf(group)}</strong>{' '}
          {isListed(group) && (
            <MultiSelect
              size="xs"
              searchable
              aria-label={nameOf(group)}
              data={choices[group.by]}
              value={group.in}
              readOnly={isFixed}
              onChange={(value) => set(i, { by: group.by, in: value })}
            />
          )}
          {group.by === 'condition' && (
            <AudienceCondition
              when={group.when}
              isFixed={isFixed}
              onChange={(when) => set(i, when && { by: 'condition', when })}
            />
          )}
          {!isFixed && <InlineRemove name={nameOf(group)} onRemove={() => set(i, null)} />}
        </span>
      ))}{' '}
      {!isFixed && (
        <InlineSelect
          label={t('services/audience/add')}
          isFixed={false}
          value=""
          options={[
            { value: '', label: t('services/audience/add') },
            ...[...PLAIN, ...LISTED].map((value) => ({ value, label: t(`services/audience/by/${value}`) })),
          ]}
          onChange={(by) => by !== '' && add(by)}
        />
      )}{' '}
      <span className={classes.quiet}>· {t('services/audience/people', { count })}</span>
    </div>
  );
}
