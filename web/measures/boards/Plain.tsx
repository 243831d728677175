import { Table } from '@mantine/core';
import type { ChartAnswer, ChartGroup } from '../../../contract/measures';
import type { Scalar } from '../../../core/conditions';
import { isOfPeople, type Chart } from '../../../core/measures';
import { useWords } from '../../messages/useWords';
import type { Point } from '../chart/options';
import classes from './Boards.module.css';
import { useChartWords } from './useChartWords';

type Props = {
  chart: Chart;
  answer: ChartAnswer;
  chosen: Scalar[];
  /** Chooses a part, or takes it back. */
  onChoose(key: Scalar): void;
  onOpen(point: Point): void;
};

const MINUTE = 60_000;

/** One figure, which opens what it counts. */
export function BigNumber({ chart, answer, onOpen }: Props) {
  const { t } = useWords();
  const { figure, sentence } = useChartWords();
  const { total, before } = answer;
  const isMissed = chart.aim !== null && total !== null && total < chart.aim;
  const shown = figure(chart, total);
  return (
    <>
      <button
        type="button"
        className={`${classes.big} ${isMissed ? classes.missed : ''}`}
        aria-label={`${shown}. ${t('boards/open', { what: sentence(chart, chart.stretch ?? { last: 1, unit: 'day' }) })}`}
        onClick={() => onOpen({})}
      >
        {shown}
      </button>
      <p className={classes.said}>
        {chart.isCompared && t('boards/before', { figure: figure(chart, before) })}
        {chart.aim !== null && ` ${t('boards/aim', { figure: figure(chart, chart.aim) })}`}
      </p>
    </>
  );
}

/** How much of a whole a part is, where parts add up to one. */
const shareOf = ({ total }: ChartGroup, groups: ChartGroup[]): number =>
  (100 * (total ?? 0)) /
  Math.max(
    1,
    groups.reduce((sum, group) => sum + (group.total ?? 0), 0),
  );

/** Parts as bars beside each other: a name chooses it for the other charts, a figure opens what it counts. */
export function BarList({ chart, answer, chosen, onChoose, onOpen }: Props) {
  const { t } = useWords();
  const { figure, valueName, numbers } = useChartWords();
  const { groups, more } = answer;
  const valueOf = (group: ChartGroup): string =>
    chart.show === 'shares' ? `${numbers.format(shareOf(group, groups))} %` : figure(chart, group.total);
  const most = Math.max(1e-9, chart.aim ?? 0, ...groups.map(({ total }) => total ?? 0));
  return (
    <>
      <ul className={classes.bars}>
        {groups.map((group) => {
          const { key, name, total, before } = group;
          const said = valueName(chart.by!, key, name);
          const isChosen = chosen.includes(key);
          return (
            <li key={JSON.stringify(key)}>
              <button
                type="button"
                aria-pressed={isChosen}
                title={t('boards/narrow', { what: said })}
                onClick={() => onChoose(key)}
              >
                <bdi>{said}</bdi>
              </button>
              <span className={classes.track} data-dim={chosen.length > 0 && !isChosen}>
                <i style={{ width: `${(100 * (total ?? 0)) / most}%` }} />
                {chart.aim !== null && <b style={{ left: `${(100 * chart.aim) / most}%` }} />}
              </span>
              <span>
                <button
                  type="button"
                  aria-label={`${valueOf(group)}. ${t('boards/open', { what: said })}`}
                  onClick={() => onOpen({ key })}
                >
                  {valueOf(group)}
                </button>
                {chart.isCompared && (
                  <small className={classes.said}>
                    {' '}
                    {t('boards/before', { figure: figure(chart, before) })}
                  </small>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      {more > 0 && (
        <p className={classes.said}>
          {t('boards/others', { count: more })} {isOfPeople(chart.by!) && t('boards/hiddenPeople')}
        </p>
      )}
    </>
  );
}

/** For how long what is open has been so. */
export function AgeList({ answer, onOpen }: Props) {
  const { t } = useWords();
  const { numbers, span } = useChartWords();
  const ages = answer.course?.ageing ?? [];
  const most = Math.max(1, ...ages.map(({ count }) => count));
  const nameOf = (i: number): string => {
    const from = span(ages[i]!.from / MINUTE, 24);
    const next = ages[i + 1];
    if (!next) return t('boards/age/from', { from });
    const to = span(next.from / MINUTE, 24);
    return i === 0 ? t('boards/age/less', { to }) : t('boards/age/range', { from, to });
  };
  return (
    <ul className={classes.bars}>
      {ages.map(({ from, count }, i) => (
        <li key={from}>
          <span>{nameOf(i)}</span>
          <span className={classes.track}>
            <i style={{ width: `${(100 * count) / most}%` }} />
          </span>
          <button
            type="button"
            aria-label={`${numbers.format(count)}. ${t('boards/open', { what: nameOf(i) })}`}
            onClick={() => onOpen({})}
          >
            {numbers.format(count)}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** The figures of a chart as a table: to read, to copy, and to open each of them. */
export function FigureTable({ chart, answer, onOpen }: Omit<Props, 'chosen' | 'onChoose'>) {
  const { t } = useWords();
  const { figure, valueName, bucket, fieldName } = useChartWords();
  const { groups, buckets } = answer;
  const open = (value: number | null, point: Point) => (
    <button type="button" className={classes.cell} onClick={() => onOpen(point)}>
      {figure(chart, value)}
    </button>
  );
  const nameOf = ({ key, name }: ChartGroup): string =>
    chart.by === null ? t('boards/figure') : valueName(chart.by, key, name);
  return (
    <div className={classes.scroll} tabIndex={0} role="group" aria-label={t('boards/asTable')}>
      <Table stickyHeader verticalSpacing={3}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>{buckets.length > 0 ? t('boards/bucket') : chart.by && fieldName(chart.by)}</Table.Th>
            {buckets.length > 0 ? (
              groups.map((group) => <Table.Th key={JSON.stringify(group.key)}>{nameOf(group)}</Table.Th>)
            ) : (
              <>
                <Table.Th>{t('boards/figure')}</Table.Th>
                <Table.Th>{t('boards/count')}</Table.Th>
              </>
            )}
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {buckets.length > 0
            ? buckets.map((at, i) => (
                <Table.Tr key={at}>
                  <Table.Td>{bucket(at, chart.every!, answer)}</Table.Td>
                  {groups.map(({ key, values }) => (
                    <Table.Td key={JSON.stringify(key)}>
                      {open(values[i] ?? null, { bucket: at, ...(chart.by !== null && { key }) })}
                    </Table.Td>
                  ))}
                </Table.Tr>
              ))
            : groups.map((group) => (
                <Table.Tr key={JSON.stringify(group.key)}>
                  <Table.Td>{nameOf(group)}</Table.Td>
                  <Table.Td>{open(group.total, chart.by === null ? {} : { key: group.key })}</Table.Td>
                  <Table.Td>{group.count}</Table.Td>
                </Table.Tr>
              ))}
        </Table.Tbody>
      </Table>
    </div>
  );
}
