import { useState } from 'react';
import { MultiSelect, Select } from '@mantine/core';
import type { Team } from '../../../contract/people';
import { useWords } from '../../messages/useWords';
import classes from '../Workshop.module.css';

const WHO = ['all', 'own', 'some'] as const;
type Who = (typeof WHO)[number];
const whoOf = (value: string[] | null): Who => (value === null ? 'all' : value.length === 0 ? 'own' : 'some');

/**
 * Which other teams may do something with a team's work: every one, none, or some of them. Nothing is kept before a
 * team is named.
 */
export function OtherTeams({
  team,
  teams,
  field,
  isBusy,
  onChange,
}: {
  team: Team;
  teams: Team[];
  field: 'readBy' | 'givenOnBy';
  isBusy: boolean;
  onChange: (value: string[] | null) => void;
}) {
  const { t, local } = useWords();
  const value = team[field];
  const [isNaming, setNaming] = useState(false);
  const who = isNaming ? 'some' : whoOf(value);
  const choose = (next: string | null): void => {
    setNaming(next === 'some');
    if (next !== 'some' && next !== null) onChange(next === 'all' ? null : []);
  };
  const label = t(`workshop/team/${field}`);
  return (
    <div className={classes.others}>
      <Select
        size="xs"
        allowDeselect={false}
        label={label}
        aria-label={`${label}: ${local(team.name)}`}
        data={WHO.map((each) => ({ value: each, label: t(`workshop/team/others/${each}`) }))}
        value={who}
        disabled={!team.mayEdit || isBusy}
        onChange={choose}
      />
      {who === 'some' && (
        <MultiSelect
          size="xs"
          aria-label={t('workshop/team/others/which', { what: label, team: local(team.name) })}
          placeholder={value?.length ? undefined : t('workshop/team/others/name')}
          data={teams
            .filter(({ id }) => id !== team.id)
            .map(({ id, name }) => ({ value: id, label: local(name) }))}
          value={value ?? []}
          disabled={!team.mayEdit || isBusy}
          onChange={(ids) => {
            // Whoever takes the last one away is choosing still; what holds meanwhile is the closed side.
            setNaming(true);
            onChange(ids);
          }}
        />
      )}
    </div>
  );
}
