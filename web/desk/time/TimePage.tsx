import { isAgent } from '../../../core/rights';
import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import '../../messages/listsWords';
import '../../messages/todayWords';
import { useWords } from '../../messages/useWords';
import { InlineSelect } from '../../ui/Inline';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from './Time.module.css';

const DAY_MS = 86_400_000;
const DAYS = { week: 7, month: 30, quarter: 90 } as const;
const BY = ['person', 'service', 'costCentre', 'ticket', 'category'] as const;
type Period = keyof typeof DAYS;
type By = (typeof BY)[number];

/** Where time went in one's teams; how it is summed stands in the address. */
export function TimePage() {
  const { t, local } = useWords();
  const me = useMe();
  const times = useTimes();
  const now = useNow(60_000);
  const [params, setParams] = useSearchParams();
  const by = BY.find((each) => each === params.get('by')) ?? 'person';
  const period = (Object.keys(DAYS) as Period[]).find((each) => each === params.get('over')) ?? 'week';
  const { data, error, refetch } = useQuery({
    queryKey: ['spentSums', by, period],
    queryFn: () =>
      call(api.spent.sums, { query: { by, from: now - DAYS[period] * DAY_MS, to: now + DAY_MS } }),
  });
  if (!isAgent(me)) return <Lost />;
  const see = (change: { by?: By; over?: Period }): void => setParams({ by, over: period, ...change });
  const nameOf = (key: string, name: { en: string; pt: string }): string =>
    by === 'category' ? t(`spent/on/${key}`) : local(name);
  const sum = (part: 'minutes' | 'byHand'): number =>
    (data ?? []).reduce((total, each) => total + each[part], 0);
  const most = Math.max(1, ...(data ?? []).map(({ minutes }) => minutes));
  return (
    <div className={classes.page}>
      <h1>{t('today/timeTitle')}</h1>
      <p>
        {t('today/by')}{' '}
        <InlineSelect
          label={t('today/by')}
          value={by}
          isFixed={false}
          options={BY.map((value) => ({ value, label: t(`today/bys/${value}`) }))}
          onChange={(value) => see({ by: value as By })}
        />{' '}
        {t('today/period').toLowerCase()}{' '}
        <InlineSelect
          label={t('today/period')}
          value={period}
          isFixed={false}
          options={Object.keys(DAYS).map((value) => ({ value, label: t(`today/periods/${value}`) }))}
          onChange={(value) => see({ over: value as Period })}
        />
      </p>
      {error ? (
        <ProblemNote error={error} onRetry={() => void refetch()} />
      ) : !data ? (
        <Waiting />
      ) : data.length === 0 ? (
        <p>{t('today/noTime')}</p>
      ) : (
        <Table>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>{t('today/what')}</Table.Th>
              <Table.Th colSpan={2}>{t('today/spent')}</Table.Th>
              <Table.Th>{t('today/byHand')}</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {data.map(({ key, name, minutes, byHand }) => (
              <Table.Tr key={key}>
                <Table.Td>
                  <bdi>{nameOf(key, name)}</bdi>
                </Table.Td>
                <Table.Td className={classes.bar}>
                  <i style={{ width: `${(100 * minutes) / most}%` }} />
                </Table.Td>
                <Table.Td>{times.span(minutes)}</Table.Td>
                <Table.Td>{byHand > 0 ? times.span(byHand) : '–'}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
          <Table.Tfoot>
            <Table.Tr>
              <Table.Th colSpan={2}>{t('today/sum')}</Table.Th>
              <Table.Th>{times.span(sum('minutes'))}</Table.Th>
              <Table.Th>{times.span(sum('byHand'))}</Table.Th>
            </Table.Tr>
          </Table.Tfoot>
        </Table>
      )}
    </div>
  );
}
