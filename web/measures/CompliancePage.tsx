import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Compliance, TallyView } from '../../contract/compliance';
import { GROUPINGS, STANDINGS, type Grouping } from '../../contract/complianceNames';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import '../messages/measuresWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { useTargets } from '../workshop/queries';
import { Bar, useShare } from './Bars';
import { MeasuresFrame } from './Frame';
import workshop from '../workshop/Workshop.module.css';
import classes from './Measures.module.css';
import { usePeriod } from './usePeriod';

const MINUTE = 60_000;
type Which = { by: string | null; key: string | null; standing: string | null };
type Pick = (which: Which) => void;

function Numbers({ tally, onPick }: { tally: TallyView; onPick(standing: string): void }) {
  const { t } = useWords();
  return (
    <span className={classes.numbers}>
      {STANDINGS.filter((standing) => tally[standing] > 0).map((standing) => (
        <button key={standing} type="button" data-standing={standing} onClick={() => onPick(standing)}>
          {tally[standing]} {t(`measures/standings/${standing}`)}
        </button>
      ))}
    </span>
  );
}

function Groups({ by, rows, onPick }: { by: Grouping; rows: Compliance['groups'][Grouping]; onPick: Pick }) {
  const showShare = useShare();
  const { t } = useWords();
  const nameOf = (name: string): string => (by === 'kind' ? t(`measures/kinds/${name}`) : name);
  return (
    <section>
      <h2>{t(`measures/by/${by}`)}</h2>
      <ul className={classes.groups}>
        {rows.map(({ key, name, ...tally }) => (
          <li key={key}>
            <button type="button" onClick={() => onPick({ by, key, standing: null })}>
              {nameOf(name)}
            </button>
            <Bar tally={tally} />
            <span>{showShare(tally.share)}</span>
            <Numbers tally={tally} onPick={(standing) => onPick({ by, key, standing })} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function Went({ went }: { went: Compliance['went'] }) {
  const { t } = useWords();
  const times = useTimes();
  const parts = [
    ['own', went.own, t('measures/own')],
    ['waited', went.waited, t('measures/waited')],
    ...Object.entries(went.held).map(
      ([whom, minutes]) => ['held', minutes, t('measures/heldFor', { whom: t(`heldFor/${whom}`) })] as const,
    ),
  ] as [string, number, string][];
  const total = Math.max(1, ...parts.map(([, minutes]) => minutes));
  return (
    <section>
      <h2>{t('measures/went')}</h2>
      <ul className={classes.groups}>
        {parts.map(([kind, minutes, name]) => (
          <li key={name}>
            <span>{name}</span>
            <span className={classes.bar}>
              <i data-went={kind} style={{ width: `${(100 * minutes) / total}%` }} />
            </span>
            <span>{times.span(minutes)}</span>
            <small />
          </li>
        ))}
      </ul>
      <small>
        {t('measures/wentOf', { count: went.of })} {t('measures/outside')}: {times.span(went.outside)}
      </small>
    </section>
  );
}

function Behind({ targetId, from, to, which }: { targetId: string; from: number; to: number; which: Which }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const query = {
    ...{ targetId, from, to },
    ...(which.by !== null && which.key !== null && { by: which.by, key: which.key }),
    ...(which.standing !== null && { standing: which.standing }),
  };
  const { data, error } = useQuery({
    queryKey: ['complianceTickets', query],
    queryFn: () => call(api.compliance.tickets, { query }),
  });
  const file = `/api/v1/compliance.csv?${new URLSearchParams(
    Object.entries(query).map(([name, value]) => [name, String(value)] as [string, string]),
  ).toString()}`;
  const what = [which.key, which.standing && t(`measures/standings/${which.standing}`)]
    .filter(Boolean)
    .join(', ');
  const span = (ms: number | null): string => (ms === null ? '–' : times.span(ms / MINUTE));
  return (
    <section aria-label={t('measures/behind')}>
      <h2>
        {t('measures/behind')}: {what || t('measures/all')} ·{' '}
        <a href={file} download>
          {t('measures/csv')}
        </a>
      </h2>
      <ProblemNote error={error} />
      {!data && !error && <Waiting />}
      {data && (
        <Table stickyHeader verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              {['ticket', 'requester', 'standing', 'used', 'limit', 'due'].map((name) => (
                <Table.Th key={name}>{t(`measures/${name}`)}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {data.rows.map(({ number, title, requester, standing, elapsed, limit, dueAt }) => (
              <Table.Tr key={number}>
                <Table.Td>
                  <Link to={`/desk/everything/${number}`}>
                    {number} <bdi>{title}</bdi>
                  </Link>
                </Table.Td>
                <Table.Td>{requester}</Table.Td>
                <Table.Td>
                  <span className={classes.standing} data-standing={standing}>
                    {t(`measures/standings/${standing}`)}
                  </span>
                </Table.Td>
                <Table.Td>{span(elapsed)}</Table.Td>
                <Table.Td>{span(limit)}</Table.Td>
                <Table.Td>{dueAt === null ? '–' : times.when(dueAt, now)}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
      {data?.isMore && <p>{t('measures/more', { count: data.rows.length })}</p>}
    </section>
  );
}

/** How a target was kept in a period; every number opens the tickets behind it. */
export function CompliancePage() {
  const showShare = useShare();
  const { t } = useWords();
  const period = usePeriod();
  const { data: targets } = useTargets();
  const targetId = period.targetId ?? targets?.[0]?.id ?? '';
  const { from, to, search } = period;
  const { data, error, refetch } = useQuery({
    queryKey: ['compliance', targetId, from, to],
    enabled: targetId !== '',
    queryFn: () => call(api.compliance.get, { query: { targetId, from, to } }),
  });
  const which = { by: search.get('by'), key: search.get('key'), standing: search.get('standing') };
  const isPicked = search.has('pick');
  const pick: Pick = (next) => period.set({ ...next, pick: '1' });
  return (
    <MeasuresFrame period={period}>
      <p className={workshop.lead}>{t('measures/lead')}</p>
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {!data && !error && <Waiting />}
      {data && data.all.met + data.all.missed + data.all.running === 0 && <p>{t('measures/none')}</p>}
      {data && data.all.met + data.all.missed + data.all.running > 0 && (
        <>
          <div className={classes.total}>
            <strong>{showShare(data.all.share)}</strong>
            <div>
              <Bar tally={data.all} />
              <Numbers tally={data.all} onPick={(standing) => pick({ by: null, key: null, standing })} />
            </div>
          </div>
          <div className={classes.parts}>
            {GROUPINGS.map((by) => (
              <Groups key={by} by={by} rows={data.groups[by]} onPick={pick} />
            ))}
            <Went went={data.went} />
          </div>
          {isPicked && <Behind {...{ targetId, from, to, which }} />}
        </>
      )}
    </MeasuresFrame>
  );
}
