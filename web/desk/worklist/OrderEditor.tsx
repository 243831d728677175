import { Button, Group, NativeSelect, NumberInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient, keepPreviousData } from '@tanstack/react-query';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import { MOST_WEIGHT, type OrderWeights } from '../../../core/worklist';
import { PRIORITIES } from '../../../core/tickets';
import type { Team } from '../../../contract/people';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from './ListEditor.module.css';

/** What the order would be under other weights, beside what it is. */
function Trial({ team, weights }: { team: Team; weights: OrderWeights }) {
  const { t } = useWords();
  const [tried] = useDebouncedValue(weights, 250);
  const { data, error } = useQuery({
    queryKey: ['order', team.id, tried],
    placeholderData: keepPreviousData,
    queryFn: () => call(api.worklists.tryOrder, { params: { id: team.id }, body: { weights: tried } }),
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  return (
    <>
      <p className={classes.quiet}>{t('lists/orderMoved', { count: data.moved })}</p>
      <table className={classes.trial}>
        <thead>
          <tr>
            <th>{t('lists/orderThen')}</th>
            <th>{t('lists/orderNow')}</th>
            <th>{t('desk/columns/ticket')}</th>
          </tr>
        </thead>
        <tbody>
          {data.rows.slice(0, 8).map(({ number, title, priority, now, then }) => (
            <tr key={number}>
              <td>{then}</td>
              <td>{now}</td>
              <td>
                {priority} <bdi>{title}</bdi>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Weights({ team }: { team: Team }) {
  const { t } = useWords();
  const client = useQueryClient();
  const [weights, setWeights] = useState<OrderWeights>(team.orderWeights);
  const save = useMutation({
    mutationFn: () =>
      call(api.worklists.setOrder, { params: { id: team.id }, body: { weights, version: team.version } }),
    onSettled: () =>
      Promise.all(['teams', 'worklist'].map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
  const hours = (label: string, value: number, set: (hours: number) => OrderWeights) => (
    <NumberInput
      key={label}
      size="xs"
      w={92}
      label={label}
      suffix=" h"
      min={0}
      max={MOST_WEIGHT}
      value={value}
      onChange={(next) => typeof next === 'number' && setWeights(set(next))}
    />
  );
  return (
    <>
      <div className={classes.weights}>
        {PRIORITIES.map((priority) =>
          hours(priority, weights.priority[priority], (next) => ({
            ...weights,
            priority: { ...weights.priority, [priority]: next },
          })),
        )}
        {hours(t('lists/weightWaiting'), weights.waiting, (waiting) => ({ ...weights, waiting }))}
        {hours(t('lists/weightFirst'), weights.goesFirst, (goesFirst) => ({ ...weights, goesFirst }))}
      </div>
      <Trial team={team} weights={weights} />
      <ProblemNote error={save.error} />
      <Group mt="sm">
        <Button size="xs" loading={save.isPending} onClick={() => save.mutate()}>
          {t('lists/orderSave')}
        </Button>
      </Group>
    </>
  );
}

/** How the order of next up comes about; who leads a team sets what may stand before what falls due sooner. */
export function OrderEditor() {
  const { t, local } = useWords();
  const me = useMe();
  const { data: teams = [] } = useTeams();
  const led = teams.filter(({ mayLead, members }) => mayLead && members.some(({ id }) => id === me.id));
  const [teamId, setTeamId] = useState<string | null>(null);
  const team = led.find(({ id }) => id === teamId) ?? led[0];
  return (
    <>
      <p style={{ marginTop: 0 }}>{t('lists/whyOrderText')}</p>
      {team && (
        <>
          {led.length > 1 && (
            <NativeSelect
              size="xs"
              label={t('conflict/fields/teamId')}
              value={team.id}
              data={led.map(({ id, name }) => ({ value: id, label: local(name) }))}
              onChange={({ target }) => setTeamId(target.value)}
            />
          )}
          <Weights key={`${team.id}:${team.version}`} team={team} />
        </>
      )}
    </>
  );
}
