import { Button, NumberInput, Popover } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link } from 'react-router';
import { LOCALES } from '../../../core/forms';
import type { SurgeRow } from '../../../contract/surge';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useRenew, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from './Worklist.module.css';

const LOOK_MS = 60_000;

/** How often a quiet hour may raise a false alarm; the lead's to choose. */
function Rate({ alarmRate }: { alarmRate: number }) {
  const { t } = useWords();
  const me = useMe();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const [percent, setPercent] = useState(alarmRate * 100);
  const teamId = me.teams[0]?.teamId ?? '';
  const mayLead = teams.some(({ id, mayLead: may }) => id === teamId && may);
  const save = useMutation({
    mutationFn: () => call(api.surge.setRate, { params: { id: teamId }, body: { alarmRate: percent / 100 } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['surges'] }),
  });
  return (
    <>
      <p style={{ marginTop: 0 }}>{t('surge/how')}</p>
      {mayLead && (
        <>
          <NumberInput
            size="xs"
            label={t('surge/rate')}
            suffix=" %"
            min={0.01}
            max={50}
            value={percent}
            onChange={(value) => typeof value === 'number' && setPercent(value)}
          />
          <Button size="xs" mt={6} loading={save.isPending} onClick={() => save.mutate()}>
            {t('common/save')}
          </Button>
          <ProblemNote error={save.error} />
        </>
      )}
    </>
  );
}

function Surge({ surge, alarmRate }: { surge: SurgeRow; alarmRate: number }) {
  const { t, local, language } = useWords();
  const renew = useRenew();
  const client = useQueryClient();
  const { service, count, usual, numbers } = surge;
  const [first, ...others] = numbers;
  const tie = useMutation({
    mutationFn: () =>
      call(api.together.putAll, { params: { number: first! }, body: { numbers: others }, key: nanoid() }),
    onSuccess: ({ put, refused }) => {
      const done = t('surge/tied', { count: put, number: first });
      const left = refused.length > 0 ? ` ${t('surge/notTied', { numbers: refused.join(', ') })}` : '';
      notifications.show({ message: done + left });
    },
    onSettled: async () => {
      for (const number of numbers) renew(number);
      await client.invalidateQueries({ queryKey: ['surges'] });
    },
  });
  const where = JSON.stringify({ field: 'number', op: 'in', value: numbers });
  const shown = new Intl.NumberFormat(LOCALES[language], { maximumFractionDigits: 1 }).format(usual);
  return (
    <div className={classes.surge} role="status">
      <strong>{t('surge/title', { count, service: local(service) })}</strong>
      <span>{t('surge/usual', { usual: shown })}</span>
      <Button size="compact-sm" component={Link} to={`/desk/everything?${new URLSearchParams({ where })}`}>
        {t('surge/show')}
      </Button>
      <Button
        size="compact-sm"
        variant="default"
        component={Link}
        to={`/estate/notices?${new URLSearchParams({ new: '1', numbers: numbers.join(), title: local(service), service: surge.serviceId })}`}
      >
        {t('surge/notice')}
      </Button>
      {others.length > 0 && (
        <Button size="compact-sm" variant="default" loading={tie.isPending} onClick={() => tie.mutate()}>
          {t('surge/tie', { count: others.length, number: first })}
        </Button>
      )}
      <Popover width={300} withArrow trapFocus>
        <Popover.Target>
          <Button size="compact-sm" variant="subtle">
            {t('desk/whyOrder')}
          </Button>
        </Popover.Target>
        <Popover.Dropdown>
          <Rate alarmRate={alarmRate} />
        </Popover.Dropdown>
      </Popover>
      <ProblemNote error={tie.error} />
    </div>
  );
}

/** Says so where more comes in than this hour of the week usually brings, and offers to tie it together. */
export function SurgeBand() {
  const { data } = useQuery({
    queryKey: ['surges'],
    refetchInterval: LOOK_MS,
    queryFn: () => call(api.surge.list),
  });
  return (
    <>
      {data?.surges
        .filter(({ numbers }) => numbers.length > 1)
        .map((surge) => (
          <Surge key={surge.serviceId} surge={surge} alarmRate={data.alarmRate} />
        ))}
    </>
  );
}
