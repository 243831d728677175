import { Anchor, Button, Code, Group, Table } from '@mantine/core';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { RecordFilter, RecordView } from '../../../contract/records';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import '../../messages/recordsWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';
import { Filter } from './Filter';
import { Seals } from './Seals';
import { useRecords } from './useRecords';
import { useRecordWords } from './useRecordWords';

const NUMBERS = new Set(['ticket', 'from', 'to']);

/** The filter as the address has it, so that a look can be sent on. */
function readFilter(params: URLSearchParams): RecordFilter {
  const names = ['person', 'kind', 'ticket', 'only', 'from', 'to'];
  const entries = names.flatMap((name) => {
    const value = params.get(name);
    return value === null ? [] : [[name, NUMBERS.has(name) ? Number(value) : value]];
  });
  return Object.fromEntries(entries) as RecordFilter;
}
const toParams = (filter: RecordFilter): URLSearchParams =>
  new URLSearchParams(Object.entries(filter).map(([name, value]) => [name, String(value)]));

function Row({ entry, words }: { entry: RecordView; words: string }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { at, keyId, ticketNumber, changes, data, via } = entry;
  const was = `/records/tickets/${ticketNumber}?at=${at}`;
  return (
    <Table.Tr>
      <Table.Td w={150} style={{ whiteSpace: 'nowrap' }} title={times.full(at)}>
        {times.when(at, now)}
      </Table.Td>
      <Table.Td style={{ overflowWrap: 'anywhere' }}>
        {words}
        {keyId !== null && <small className={classes.small}>{t('records/byKey', { key: keyId })}</small>}
        <details>
          <summary className={classes.small} aria-label={t('records/details')}>
            {t('records/more')}
          </summary>
          <Code block>{JSON.stringify({ via, changes, data }, null, 2)}</Code>
        </details>
      </Table.Td>
      <Table.Td>
        {ticketNumber !== null && (
          <Anchor
            component={Link}
            to={was}
            size="sm"
            aria-label={t('records/asItWas', { number: ticketNumber })}
          >
            {ticketNumber}
          </Anchor>
        )}
      </Table.Td>
    </Table.Tr>
  );
}

/** The record of all that was done: found, read and taken out. */
export function RecordsPage() {
  const { t } = useWords();
  const me = useMe();
  const [params, setParams] = useSearchParams();
  const [personName, setPersonName] = useState<string | null>(null);
  const filter = readFilter(params);
  const toWords = useRecordWords();
  const { data, error, isPending, hasNextPage, fetchNextPage, refetch } = useRecords(filter);
  if (!me.isAdministrator) return <Lost />;
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  const out = (format: string): string => {
    const wanted = toParams(filter);
    wanted.set('format', format);
    return `/api/v1/records/out?${wanted.toString()}`;
  };
  return (
    <WorkshopFrame lead={t('records/lead')}>
      <Filter
        {...{ filter, personName }}
        onChange={(next, name) => {
          if (name !== undefined) setPersonName(name);
          setParams(toParams(next), { replace: true });
        }}
      />
      <Group gap="md" mb="sm">
        <Anchor size="sm" href={out('csv')} download>
          {t('records/csv')}
        </Anchor>
        <Anchor size="sm" href={out('jsonl')} download>
          {t('records/lines')}
        </Anchor>
      </Group>
      <Seals />
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {isPending && <Waiting />}
      {data && rows.length === 0 && <p>{t('records/none')}</p>}
      <Table.ScrollContainer minWidth={480}>
        <Table>
          <Table.Tbody>
            {rows.map((entry) => (
              <Row key={entry.id} entry={entry} words={toWords(entry)} />
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      {hasNextPage && (
        <Button size="xs" variant="default" onClick={() => void fetchNextPage()}>
          {t('records/older')}
        </Button>
      )}
    </WorkshopFrame>
  );
}
