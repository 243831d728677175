import { Button, Group, Modal, Table, Text } from '@mantine/core';
import { ApiProblem } from '../api/call';
import { useServices } from '../api/queries';
import { useWords, type Words } from '../messages/useWords';

type Props = { error: unknown; onKeepTheirs(): void; onPutMine(): void };

const WORDED: Record<string, string> = {
  state: 'states',
  heldFor: 'heldFor',
  impact: 'impacts',
  urgency: 'urgencies',
};

function wordOf(
  field: string,
  value: unknown,
  { t }: Words,
  titleOf: (id: unknown) => string | null,
): string {
  if (value === null || value === undefined) return t('common/none');
  if (field === 'serviceId') return titleOf(value) ?? t('common/none');
  const said = typeof value === 'string' ? value : JSON.stringify(value);
  return WORDED[field] ? t(`${WORDED[field]}/${said}`) : said;
}

/** Someone else was quicker: what differs, and the choice. */
export function Conflict({ error, onKeepTheirs, onPutMine }: Props) {
  const words = useWords();
  const { t, local } = words;
  const { data: services = [] } = useServices();
  const titleOf = (id: unknown): string | null => {
    const service = services.find((each) => each.id === id);
    return service ? local(service.title) : null;
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
              <Table.Td>{wordOf(field, theirs, words, titleOf)}</Table.Td>
              <Table.Td>{wordOf(field, yours, words, titleOf)}</Table.Td>
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
