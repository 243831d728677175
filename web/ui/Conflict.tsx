import { Button, Group, Modal, Table, Text } from '@mantine/core';
import { ApiProblem } from '../api/call';
import { useServices } from '../api/queries';
import { useWords } from '../messages/useWords';
import { useValueWords } from './useValueWords';

type Props = { error: unknown; onKeepTheirs(): void; onPutMine(): void };

/** Someone else was quicker: what differs, and the choice. */
export function Conflict({ error, onKeepTheirs, onPutMine }: Props) {
  const { t, local } = useWords();
  const valueOf = useValueWords();
  const { data: services = [] } = useServices();
  const say = (field: string, value: unknown): string => {
    const service = field === 'serviceId' ? services.find(({ id }) => id === value) : undefined;
    return (service ? local(service.title) : valueOf(field, value)) || t('common/none');
  };
  const differences =
    error instanceof ApiProblem && error.code === 'stale' ? (error.problem?.differences ?? []) : [];
  const by = differences[0]?.by ?? t('common/nobody');
  return (
    <Modal opened={differences.length > 0} onClose={onKeepTheirs} title={t('conflict/title')}>
      <Text mb="sm">{t('conflict/lead')}</Text>
      <Table>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>{t('conflict/field')}</Table.Th>
            <Table.Th>{t('conflict/theirs', { name: by })}</Table.Th>
            <Table.Th>{t('conflict/yours')}</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {differences.map(({ field, theirs, yours }) => (
            <Table.Tr key={field}>
              <Table.Td>{t(`conflict/fields/${field}`)}</Table.Td>
              <Table.Td>{say(field, theirs)}</Table.Td>
              <Table.Td>{say(field, yours)}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <Group mt="md">
        <Button onClick={onKeepTheirs}>{t('conflict/keepTheirs')}</Button>
        <Button variant="default" onClick={onPutMine}>
          {t('conflict/putMine')}
        </Button>
      </Group>
    </Modal>
  );
}
