import { Table } from '@mantine/core';
import type { ChartAnswer } from '../../../contract/measures';
import type { Chart } from '../../../core/measures';
import { useWords } from '../../messages/useWords';
import classes from './Boards.module.css';
import { useChartWords } from './useChartWords';

const MINUTE = 60_000;

/** The figures of how tickets came, went and stayed, as a table: to read and to copy. */
export function CourseTable({ chart, answer }: { chart: Chart; answer: ChartAnswer }) {
  const { t } = useWords();
  const { bucket, span, numbers } = useChartWords();
  const { flow, survival, expected } = answer.course!;
  const number = (value: number): string => numbers.format(value);
  const hasAgents = expected.some(({ agents }) => agents !== null);
  const [headings, rows]: [string[], string[][]] =
    flow.length > 0
      ? [
          [t('boards/bucket'), t('boards/flow/opened'), t('boards/flow/ended'), t('boards/flow/open')],
          flow.map(({ opened, ended, open }, i) => [
            bucket(answer.buckets[i]!, chart.every!, answer),
            ...[opened, ended, open].map(number),
          ]),
        ]
      : survival
        ? [
            [t('boards/survival/after'), t('boards/survival/open')],
            survival.shares.map(({ after, share }) => [
              span(Math.round(after / MINUTE)),
              `${number(100 * share)} %`,
            ]),
          ]
        : [
            [
              ...[t('boards/bucket'), t('boards/expected/mean'), t('boards/expected/band')],
              ...(hasAgents ? [t('boards/expected/agents')] : []),
            ],
            expected.map(({ at, mean, low, high, agents }) => [
              ...[bucket(at, 'hour', answer), number(mean), `${low}–${high}`],
              ...(hasAgents ? [String(agents ?? '')] : []),
            ]),
          ];
  return (
    <div className={classes.scroll} tabIndex={0} role="group" aria-label={t('boards/asTable')}>
      <Table stickyHeader verticalSpacing={3}>
        <Table.Thead>
          <Table.Tr>
            {headings.map((heading) => (
              <Table.Th key={heading}>{heading}</Table.Th>
            ))}
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {rows.map((row, i) => (
            <Table.Tr key={i}>
              {row.map((cell, j) => (
                <Table.Td key={j}>{cell}</Table.Td>
              ))}
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </div>
  );
}
