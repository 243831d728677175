import { Badge, Table, Title } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { Running, RunningPart } from '../../../contract/running';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import '../../messages/runningWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { WorkshopFrame } from '../WorkshopFrame';

const LOOK_MS = 5_000;
const COLOURS = { well: 'teal', behind: 'yellow', stuck: 'red' } as const;
const MB = 1_048_576;

/** A stretch of real time in the largest unit that it fills. */
function useSpan(): (ms: number) => string {
  const { t } = useWords();
  return (ms) => {
    const [unit, length] =
      ms >= 3_600_000
        ? (['hours', 3_600_000] as const)
        : ms >= 60_000
          ? (['minutes', 60_000] as const)
          : (['seconds', 1_000] as const);
    return t(`running/span/${unit}`, { n: Math.floor(ms / length) });
  };
}

function PartRow({ of: { part, standing, waiting, longestMs } }: { of: RunningPart }) {
  const { t } = useWords();
  const span = useSpan();
  const isWell = standing === 'well';
  const values = { count: waiting, span: span(longestMs) };
  const how =
    part === 'database'
      ? isWell
        ? t('running/well/database')
        : t('running/slow', values)
      : waiting === 0
        ? t(`running/well/${part}`)
        : t(isWell ? 'running/underWay' : 'running/waits', values);
  return (
    <Table.Tr>
      <Table.Td>
        {t(`running/parts/${part}`)}
        {!isWell && <div>{t(`running/todo/${part}`)}</div>}
      </Table.Td>
      <Table.Td>{how}</Table.Td>
      <Table.Td>
        {/* What is as it should be is said once, above. */}
        {!isWell && (
          <Badge color={COLOURS[standing]} variant="light" autoContrast tt="none">
            {t(`running/standing/${standing}`)}
          </Badge>
        )}
      </Table.Td>
    </Table.Tr>
  );
}

/** What needs somebody first; those that stand alike as the page has them. */
const worstFirst = (parts: RunningPart[]): RunningPart[] =>
  [...parts].sort(
    (a, b) => Object.keys(COLOURS).indexOf(b.standing) - Object.keys(COLOURS).indexOf(a.standing),
  );

function Beside({ running: { process, cluster, cleared } }: { running: Running }) {
  const { t } = useWords();
  const span = useSpan();
  const said = [
    ...process.roles.map((role) => t(`running/roles/${role}`)),
    t('running/since', { span: span(process.sinceMs) }),
    t('running/memory', { mb: Math.round(process.memoryBytes / MB) }),
    t('running/streams', { count: process.streams }),
  ];
  return (
    <>
      <Title order={3} mt="md">
        {t('running/process')}
      </Title>
      <p>{said.join(', ')}.</p>
      <p>
        {cluster ? t('running/cluster', { count: cluster.nodes, node: cluster.used }) : t('running/single')}
      </p>
      <p>{t('running/metrics')}</p>
      <Title order={3} mt="md">
        {t('running/cleared')}
      </Title>
      <ul style={{ margin: 0 }}>
        {cleared.map(({ table, days }) => (
          <li key={table}>{t('running/clearedDays', { what: t(`running/tables/${table}`), count: days })}</li>
        ))}
      </ul>
    </>
  );
}

/** How it runs at this moment, in words, for who looks after it. */
export function RunningPage() {
  const { t } = useWords();
  const me = useMe();
  const { data, error, isPending, refetch } = useQuery({
    queryKey: ['running'],
    queryFn: () => call(api.running.get),
    refetchInterval: LOOK_MS,
    enabled: me.isAdministrator,
  });
  if (!me.isAdministrator) return <Lost />;
  return (
    <WorkshopFrame lead={t('running/lead')}>
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {isPending && <Waiting />}
      {data && (
        <>
          <h2 aria-live="polite">{t(`running/whole/${data.standing}`)}</h2>
          <Table.ScrollContainer minWidth={560} maw={900}>
            <Table verticalSpacing="xs">
              <Table.Tbody>
                {worstFirst(data.parts).map((each) => (
                  <PartRow key={each.part} of={each} />
                ))}
              </Table.Tbody>
            </Table>
          </Table.ScrollContainer>
          <Beside running={data} />
        </>
      )}
    </WorkshopFrame>
  );
}
