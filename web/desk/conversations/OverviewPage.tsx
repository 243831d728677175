import { Table } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { ChatOverview } from '../../../contract/conversations';
import { useWaitWords } from '../../ask/person/PersonPage';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import '../../messages/talkWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from './Conversations.module.css';

const MINUTE = 60_000;
const LINE_HEADS = [
  'line',
  'waits',
  'longest',
  'expected',
  'there',
  'taken',
  'left',
  'meanWait',
  'handling',
  'rating',
];
const AGENT_HEADS = ['agent', 'there', 'load', 'taken', 'handling'];

function Heads({ names }: { names: string[] }) {
  const { t } = useWords();
  return (
    <Table.Thead>
      <Table.Tr>
        {names.map((name) => (
          <Table.Th key={name}>{t(`talk/overview/${name}`)}</Table.Th>
        ))}
      </Table.Tr>
    </Table.Thead>
  );
}

function Line({ line }: { line: ChatOverview['lines'][number] }) {
  const { local } = useWords();
  const times = useTimes();
  const now = useNow(10_000);
  const waitWords = useWaitWords();
  const span = (minutes: number | null): string => (minutes === null ? '–' : times.span(minutes));
  const { taken, abandoned, meanWait, meanHandling, rating } = line.today;
  return (
    <Table.Tr>
      <Table.Td>{local(line.name)}</Table.Td>
      <Table.Td>{line.waiting}</Table.Td>
      <Table.Td>{line.longest === null ? '–' : times.span((now - line.longest) / MINUTE)}</Table.Td>
      <Table.Td>{waitWords(line.wait)}</Table.Td>
      <Table.Td>{line.agents}</Table.Td>
      <Table.Td>{taken}</Table.Td>
      <Table.Td>{abandoned}</Table.Td>
      <Table.Td>{span(meanWait)}</Table.Td>
      <Table.Td>{span(meanHandling)}</Table.Td>
      <Table.Td>{rating === null ? '–' : rating.toFixed(1)}</Table.Td>
    </Table.Tr>
  );
}

/** Who does the work: lines, waits, those who left, handling times, agents and their load; live. */
export function OverviewPage() {
  const { t } = useWords();
  const times = useTimes();
  const { data, error } = useQuery({
    queryKey: ['chatOverview'],
    refetchInterval: 10_000,
    queryFn: () => call(api.conversations.overview),
  });
  if (error) return <Lost />;
  if (!data) return <Waiting />;
  return (
    <div className={classes.overview}>
      <h1>{t('talk/overview/title')}</h1>
      <p>
        <Link to="/desk/conversations">{t('talk/desk/title')}</Link>
      </p>
      <Table>
        <Heads names={LINE_HEADS} />
        <Table.Tbody>
          {data.lines.map((line) => (
            <Line key={line.id} line={line} />
          ))}
        </Table.Tbody>
      </Table>
      <Table mt="xl">
        <Heads names={AGENT_HEADS} />
        <Table.Tbody>
          {data.agents.map(({ id, name, presence, isHere, load, capacity, taken, meanHandling }) => (
            <Table.Tr key={id}>
              <Table.Td>{name}</Table.Td>
              <Table.Td>
                {t(`talk/desk/presences/${presence}`)} ·{' '}
                {t(isHere ? 'talk/overview/here' : 'talk/overview/notHere')}
              </Table.Td>
              <Table.Td>{t('talk/overview/ofCapacity', { load, capacity })}</Table.Td>
              <Table.Td>{taken}</Table.Td>
              <Table.Td>{meanHandling === null ? '–' : times.span(meanHandling)}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </div>
  );
}
