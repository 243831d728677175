import { Anchor, Drawer, Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { AskedChart } from '../../../contract/measures';
import { getFactField, reckonedBy } from '../../../core/measures';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import type { Point } from '../chart/options';
import { toFile } from './files';
import { useChartWords } from './useChartWords';

/** What a figure counts, the latest first; each opens its ticket. */
export function Behind({ asked, point, onClose }: { asked: AskedChart; point: Point; onClose(): void }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { sentence, valueName, bucket, fieldName, figure } = useChartWords();
  const { chart } = asked;
  const body = { ...asked, ...point };
  const { data, error } = useQuery({
    queryKey: ['behindFigure', body],
    queryFn: () => call(api.measures.behind, { body }),
  });
  const reckoned = reckonedBy(chart);
  const unit = reckoned !== null && getFactField(chart.of, reckoned)?.is === 'length' ? 'median' : 'mean';
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const parts = [
    point.key === undefined || chart.by === null ? null : valueName(chart.by, point.key),
    point.bucket === undefined || chart.every === null ? null : bucket(point.bucket, chart.every, { zone }),
  ].filter(Boolean);
  return (
    <Drawer
      opened
      position="right"
      size="xl"
      title={t('boards/behind')}
      closeButtonProps={{ 'aria-label': t('common/close') }}
      onClose={onClose}
    >
      <p>{[sentence(chart, asked.stretch), ...parts].join(' · ')}</p>
      <ProblemNote error={error} />
      {!data && !error && <Waiting />}
      {data?.rows.length === 0 && <p>{t('boards/nothing')}</p>}
      {data && data.rows.length > 0 && (
        <Table stickyHeader verticalSpacing={4}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>{t('boards/what')}</Table.Th>
              <Table.Th>{t('boards/who')}</Table.Th>
              <Table.Th>{fieldName(chart.at)}</Table.Th>
              {reckoned !== null && <Table.Th>{fieldName(reckoned)}</Table.Th>}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {data.rows.map(({ number, title, person, at, value }, i) => (
              <Table.Tr key={`${number} ${i}`}>
                <Table.Td>
                  {number === null ? (
                    t('boards/noTicket')
                  ) : (
                    <Anchor component={Link} size="sm" to={`/desk/everything/${number}`}>
                      {number} <bdi>{title}</bdi>
                    </Anchor>
                  )}
                </Table.Td>
                <Table.Td>{person}</Table.Td>
                <Table.Td>{times.when(at, now)}</Table.Td>
                {reckoned !== null && (
                  <Table.Td>
                    {figure({ of: chart.of, show: 'table', what: { [unit]: reckoned } as never }, value)}
                  </Table.Td>
                )}
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
      {data?.isMore && <p>{t('boards/behindMore', { count: data.rows.length })}</p>}
      <p>
        {(['csv', 'xlsx', 'json'] as const).map((as) => (
          <Anchor key={as} size="sm" mr="sm" href={toFile(asked, as, 'behind')} download>
            {t(`boards/files/${as}`)}
          </Anchor>
        ))}
      </p>
    </Drawer>
  );
}
