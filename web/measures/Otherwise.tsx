import { ActionIcon, Button, Group, NativeSelect } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { Asked } from '../../contract/compliance';
import { useAllServices, useTeams } from '../api/queries';
import '../messages/measuresWords';
import { useWords } from '../messages/useWords';
import { WeekGrid } from '../workshop/calendars/WeekGrid';
import { useCalendarList } from '../workshop/queries';
import classes from './Measures.module.css';

type Other = Pick<Asked, 'calendars' | 'moves'>;
export const UNCHANGED: Other = { calendars: {}, moves: [] };

type Props = { other: Other; onChange(other: Other): void };

/** Calendars with other hours: chosen, then painted. */
function Calendars({ other, onChange }: Props) {
  const { t } = useWords();
  const { data: known = [] } = useCalendarList();
  const set = (calendars: Other['calendars']): void => onChange({ ...other, calendars });
  const left = known.filter(({ id }) => !other.calendars[id]);
  return (
    <>
      {Object.entries(other.calendars).map(([id, spec]) => (
        <section key={id} className={classes.other}>
          <Group justify="space-between">
            <b>{t('measures/hoursOf', { name: spec.name })}</b>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={t('measures/asItIs', { name: spec.name })}
              onClick={() =>
                set(Object.fromEntries(Object.entries(other.calendars).filter(([each]) => each !== id)))
              }
            >
              <IconX size={16} />
            </ActionIcon>
          </Group>
          <WeekGrid
            weekly={spec.weekly}
            isLocked={false}
            problems={{}}
            onChange={(weekly) => set({ ...other.calendars, [id]: { ...spec, weekly } })}
          />
        </section>
      ))}
      <NativeSelect
        size="xs"
        maw={280}
        label={t('measures/otherHours')}
        value=""
        data={[{ value: '', label: '–' }, ...left.map(({ id, spec }) => ({ value: id, label: spec.name }))]}
        onChange={({ target }) => {
          const chosen = left.find(({ id }) => id === target.value);
          if (chosen) set({ ...other.calendars, [chosen.id]: chosen.spec });
        }}
      />
    </>
  );
}

/** Work that another team would have had. */
function Moves({ other, onChange }: Props) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const { data: services = [] } = useAllServices();
  const { moves } = other;
  const set = (changed: Other['moves']): void => onChange({ ...other, moves: changed });
  const teamChoices = teams.map(({ id, name }) => ({ value: id, label: local(name) }));
  return (
    <>
      {moves.map((move, i) => {
        const change = (part: Partial<typeof move>): void =>
          set(moves.map((each, at) => (at === i ? { ...each, ...part } : each)));
        return (
          <Group key={i} gap="xs" mt={6} align="flex-end">
            <NativeSelect
              size="xs"
              label={t('measures/moveOf')}
              value={move.serviceId ?? ''}
              data={[
                { value: '', label: t('measures/moveAll') },
                ...services.map(({ id, title }) => ({ value: id, label: local(title) })),
              ]}
              onChange={({ target }) => change({ serviceId: target.value || null })}
            />
            <NativeSelect
              size="xs"
              label={t('measures/moveFrom')}
              value={move.fromTeamId}
              data={teamChoices}
              onChange={({ target }) => change({ fromTeamId: target.value })}
            />
            <NativeSelect
              size="xs"
              label={t('measures/moveTo')}
              value={move.toTeamId}
              data={teamChoices}
              onChange={({ target }) => change({ toTeamId: target.value })}
            />
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={t('measures/moveNot')}
              onClick={() => set(moves.filter((_, at) => at !== i))}
            >
              <IconX size={16} />
            </ActionIcon>
          </Group>
        );
      })}
      <Button
        mt={8}
        size="compact-sm"
        variant="subtle"
        disabled={teams.length < 2}
        onClick={() => set([...moves, { serviceId: null, fromTeamId: teams[0]!.id, toTeamId: teams[1]!.id }])}
      >
        {t('measures/moveAdd')}
      </Button>
    </>
  );
}

/** What else would have been otherwise, beside the promise itself. */
export function Otherwise(props: Props) {
  const { t } = useWords();
  return (
    <section aria-label={t('measures/otherwise')}>
      <h2>{t('measures/otherwise')}</h2>
      <Calendars {...props} />
      <Moves {...props} />
    </section>
  );
}
