import { Table } from '@mantine/core';
import { Link } from 'react-router';
import type { ReplayResult } from '../../contract/compliance';
import { GROUPINGS } from '../../contract/complianceNames';
import { useNow } from '../api/clock';
import '../messages/measuresWords';
import { useWords } from '../messages/useWords';
import { useTimes } from '../ui/useTimes';
import { Bar, useShare } from './Bars';
import classes from './Measures.module.css';

function Part({ title, rows }: { title: string; rows: ReplayResult['targets'] }) {
  const showShare = useShare();
  return (
    <section>
      <h2>{title}</h2>
      <ul className={classes.both}>
        {rows.map(({ key, name, before, after }) => (
          <li key={key}>
            <span>{name}</span>
            <span>
              <Bar tally={before} />
              <Bar tally={after} />
            </span>
            <span>
              {showShare(before.share)}
              <br />
              <b>{showShare(after.share)}</b>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Parts({ result }: { result: ReplayResult }) {
  const { t } = useWords();
  return (
    <div className={classes.parts}>
      {result.targets.length > 1 && <Part title={t('measures/byTarget')} rows={result.targets} />}
      {GROUPINGS.map((by) => (
        <Part
          key={by}
          title={t(`measures/by/${by}`)}
          rows={
            by === 'kind'
              ? result.groups.kind.map((row) => ({ ...row, name: t(`measures/kinds/${row.name}`) }))
              : result.groups[by]
          }
        />
      ))}
    </div>
  );
}

/** What came out of a replay: how promises were kept and would have been, and what changes sides. */
export function Result({ result }: { result: ReplayResult }) {
  const showShare = useShare();
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { tickets, clocks, all, changed, flips, ms } = result;
  const standing = (value: string | null): string =>
    t(value === null ? 'measures/nothing' : `measures/standings/${value}`);
  const when = (at: number | null): string => (at === null ? '–' : times.when(at, now));
  return (
    <div role="status">
      <div className={classes.total}>
        <strong>
          {showShare(all.before.share)} → {showShare(all.after.share)}
        </strong>
        <div>
          <small>{t('measures/before')}</small>
          <Bar tally={all.before} />
          <small>{t('measures/after')}</small>
          <Bar tally={all.after} />
        </div>
      </div>
      <p>
        {changed === 0 ? t('measures/unchanged') : t('measures/changed', { count: changed })}{' '}
        {t('measures/result', { tickets, clocks, seconds: (ms / 1000).toFixed(1) })}
      </p>
      <Parts result={result} />
      {flips.length > 0 && (
        <section>
          <h2>{t('measures/flips')}</h2>
          <Table verticalSpacing={4}>
            <Table.Thead>
              <Table.Tr>
                {['ticket', 'target', 'flip', 'due'].map((name) => (
                  <Table.Th key={name}>{t(`measures/${name}`)}</Table.Th>
                ))}
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {flips.map(({ number, title, target, before, after, dueBefore, dueAfter }) => (
                <Table.Tr key={`${number} ${target}`}>
                  <Table.Td>
                    <Link to={`/desk/everything/${number}`}>
                      {number} <bdi>{title}</bdi>
                    </Link>
                  </Table.Td>
                  <Table.Td>{target}</Table.Td>
                  <Table.Td>
                    {standing(before)} → {standing(after)}
                  </Table.Td>
                  <Table.Td>
                    {when(dueBefore)} → {when(dueAfter)}
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </section>
      )}
    </div>
  );
}
