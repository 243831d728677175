import { Select, Table } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Thing } from '../../contract/estate';
import { LOCALES } from '../../core/forms';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import classes from './Estate.module.css';

/** How much of what is promised of a thing was kept, by month, with the notices behind it. */
export function ServiceTime({ thing }: { thing: Thing }) {
  const { t, local, language } = useWords();
  const times = useTimes();
  const { timeZone } = useMe();
  const client = useQueryClient();
  const { id } = thing;
  const key = ['things', 'serviceTime', id];
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: () => call(api.notices.serviceTime, { params: { id } }),
  });
  const { data: calendars = [] } = useQuery({
    queryKey: ['calendars'],
    queryFn: () => call(api.calendars.list),
  });
  const set = useMutation({
    mutationFn: (calendarId: string | null) =>
      call(api.notices.setPromised, { params: { id }, body: { calendarId } }),
    onSettled: () => client.invalidateQueries({ queryKey: key }),
  });
  const locale = LOCALES[language];
  const month = new Intl.DateTimeFormat(locale, { month: 'long', year: 'numeric', timeZone });
  const percent = new Intl.NumberFormat(locale, {
    style: 'percent',
    minimumFractionDigits: 2,
    maximumFractionDigits: 3,
  });
  const span = (ms: number | null): string => (ms === null ? '–' : times.span(ms / 60_000));
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  return (
    <section className={classes.section} aria-labelledby="service-time">
      <h2 id="service-time">{t('estate/time/title')}</h2>
      <Select
        size="xs"
        w={260}
        clearable
        readOnly={!data.maySet}
        label={t('estate/time/promised')}
        placeholder={t('estate/time/always')}
        data={calendars.map(({ id: value, spec }) => ({ value, label: spec.name }))}
        value={data.calendarId}
        onChange={(value) => set.mutate(value)}
      />
      <Table.ScrollContainer minWidth={520}>
        <Table>
          <Table.Thead>
            <Table.Tr>
              {(['month', 'share', 'lost', 'failures', 'toRestore', 'between'] as const).map((name) => (
                <Table.Th key={name}>{t(`estate/time/${name}`)}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {data.months.map(({ from, share, lost, failures, toRestore, betweenFailures, notices }) => (
              <Table.Tr key={from}>
                <Table.Td>{month.format(from + 86_400_000)}</Table.Td>
                <Table.Td>{percent.format(share)}</Table.Td>
                <Table.Td>{lost > 0 ? span(lost) : '–'}</Table.Td>
                <Table.Td>
                  {failures}{' '}
                  {notices.map((notice) => (
                    <div key={notice.id}>
                      <Link to={`/estate/notices/${notice.id}`}>{local(notice.title)}</Link>
                    </div>
                  ))}
                </Table.Td>
                <Table.Td>{span(toRestore)}</Table.Td>
                <Table.Td>{span(betweenFailures)}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      <ProblemNote error={set.error} />
    </section>
  );
}
