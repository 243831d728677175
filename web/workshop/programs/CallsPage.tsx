import { Anchor, Button, Checkbox, Table } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { OutgoingCall } from '../../../contract/calls';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import '../../messages/programsWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { WorkshopFrame } from '../WorkshopFrame';
import { useCalls } from './usePrograms';

const HEADS = ['when', 'what', 'where', 'how', 'took'] as const;

function Row({ made }: { made: OutgoingCall }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(30_000);
  const { at, kind, address, status, error, ms } = made;
  return (
    <Table.Tr>
      <Table.Td>{times.when(at, now)}</Table.Td>
      <Table.Td>{t(`programs/callsPage/kinds/${kind}`)}</Table.Td>
      <Table.Td style={{ overflowWrap: 'anywhere' }}>{address}</Table.Td>
      <Table.Td>{status ?? error}</Table.Td>
      <Table.Td ta="right">{ms} ms</Table.Td>
    </Table.Tr>
  );
}

/** The last calls to outside addresses, as they went. */
export function CallsPage() {
  const { t } = useWords();
  const me = useMe();
  const [isFailed, setFailed] = useState(false);
  const { data, error, isPending, hasNextPage, fetchNextPage, refetch } = useCalls(isFailed);
  if (!me.isAdministrator) return <Lost />;
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <WorkshopFrame lead={t('programs/callsPage/lead')}>
      <Anchor component={Link} to="/workshop/programs" size="sm">
        {t('programs/back')}
      </Anchor>
      <h2>{t('programs/calls')}</h2>
      <Checkbox
        {...{ size: 'sm', mb: 'sm', label: t('programs/callsPage/failed'), checked: isFailed }}
        onChange={({ target }) => setFailed(target.checked)}
      />
      <ProblemNote error={error} onRetry={() => void refetch()} />
      {isPending && <Waiting />}
      {data && rows.length === 0 && <p>{t(`programs/callsPage/${isFailed ? 'noneFailed' : 'none'}`)}</p>}
      {rows.length > 0 && (
        <Table.ScrollContainer minWidth={640}>
          <Table>
            <Table.Thead>
              <Table.Tr>
                {HEADS.map((name) => (
                  <Table.Th key={name} ta={name === 'took' ? 'right' : 'left'}>
                    {t(`programs/callsPage/${name}`)}
                  </Table.Th>
                ))}
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {rows.map((made) => (
                <Row key={made.id} made={made} />
              ))}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
      )}
      {hasNextPage && (
        <Button size="xs" variant="default" onClick={() => void fetchNextPage()}>
          {t('programs/deliveries/older')}
        </Button>
      )}
    </WorkshopFrame>
  );
}
