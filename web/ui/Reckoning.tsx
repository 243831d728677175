import { Modal, Table, Text } from '@mantine/core';
import type { Clock } from '../../contract/clocks';
import { addsToTotal } from '../../core/targets';
import { useNow } from '../api/clock';
import { useReckoning } from '../api/queries';
import { useWords } from '../messages/useWords';
import { useTimes } from './useTimes';
import { Waiting } from './Waiting';

const MINUTE = 60_000;
const COLOURS: Partial<Record<string, string>> = { counted: 'var(--ink)', pastDue: 'var(--brick)' };

/** What a row adds in whole minutes, so that the minutes shown add up to the totals shown. */
const added = (total: number, before = 0): number =>
  (Math.round(total / MINUTE) - Math.round(before / MINUTE)) * MINUTE;

/** How a clock came to what it shows: span by span, adding up, so that one could read it aloud. */
export function Reckoning({
  number,
  clock,
  onClose,
}: {
  number: number;
  clock: Pick<Clock, 'targetId' | 'work'>;
  onClose(): void;
}) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(MINUTE);
  const { data } = useReckoning(number, clock.targetId, clock.work);
  const span = (ms: number): string => times.span(ms / MINUTE);
  return (
    <Modal opened onClose={onClose} size="xl" title={`${t('reckoning/title')} ${data?.name ?? ''}`}>
      {!data && <Waiting />}
      {data && (
        <>
          <Text mb="sm">
            {data.limit === null
              ? t('reckoning/noLimit')
              : t('reckoning/sum', {
                  used: span(data.elapsed),
                  limit: span(data.limit),
                  percent: Math.round(data.percent ?? 0),
                  plain: span(data.plainElapsed),
                })}{' '}
            {data.edition > 1 && `${t('reckoning/edition', { edition: data.edition })} `}
            {data.dueAt !== null && t('reckoning/due', { when: times.when(data.dueAt, now) })}
          </Text>
          <Table stickyHeader verticalSpacing={4}>
            <Table.Thead>
              <Table.Tr>
                {['from', 'to', 'calendar', 'kind'].map((column) => (
                  <Table.Th key={column} {...(column === 'calendar' && { visibleFrom: 'sm' })}>
                    {t(`reckoning/${column}`)}
                  </Table.Th>
                ))}
                <Table.Th ta="right" visibleFrom="sm">
                  {t('reckoning/worked')}
                </Table.Th>
                <Table.Th ta="right">{t('reckoning/total')}</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {data.rows.map(({ from, to, calendar, kind, worked, total }, i) => (
                <Table.Tr key={from} c={COLOURS[kind] ?? 'dimmed'}>
                  <Table.Td>{times.when(from, now)}</Table.Td>
                  <Table.Td>{times.when(to, now)}</Table.Td>
                  <Table.Td visibleFrom="sm">{calendar ?? t('common/none')}</Table.Td>
                  <Table.Td>{t(`reckoning/${kind}`)}</Table.Td>
                  <Table.Td ta="right" visibleFrom="sm">
                    {worked > 0 && span(addsToTotal(kind) ? added(total, data.rows[i - 1]?.total) : worked)}
                  </Table.Td>
                  <Table.Td ta="right">{span(total)}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </>
      )}
    </Modal>
  );
}
