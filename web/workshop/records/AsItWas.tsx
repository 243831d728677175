import { Anchor, Container, Group, Table, Text, Title } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router';
import type { TicketAsItWas } from '../../../contract/records';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import '../../messages/recordsWords';
import { useWords } from '../../messages/useWords';
import { InstantInput } from '../../ui/InstantInput';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { useValueWords } from '../../ui/useValueWords';
import { Waiting } from '../../ui/Waiting';

/** The fields of the ticket then; beside those that are otherwise by now, what stands there now. */
function Fields({ was: { then, since } }: { was: TicketAsItWas }) {
  const { t } = useWords();
  const valueOf = useValueWords();
  const text = (field: string, value: unknown): string => valueOf(field, value) || t('records/was/nothing');
  return (
    <Table mb="md">
      <Table.Tbody>
        {Object.entries(then).map(([field, value]) => (
          <Table.Tr key={field}>
            <Table.Th w={180}>{t(`conflict/fields/${field}`)}</Table.Th>
            <Table.Td>{text(field, value)}</Table.Td>
            <Table.Td fw={600}>
              {since[field] && t('records/was/since', { now: text(field, since[field].now) })}
            </Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}

function Entries({ entries, title }: { entries: TicketAsItWas['entries']; title: string }) {
  const { t } = useWords();
  const times = useTimes();
  if (entries.length === 0) return null;
  return (
    <>
      <Title order={2} size="h4">
        {title}
      </Title>
      <ul>
        {entries.map(({ id, at, kind, actor, text }) => (
          <li key={id}>
            <Text size="sm" span>
              {times.full(at)}:{' '}
              {t(`entries/${kind}`, { who: actor ?? t('records/itself') }).replace(
                /\s*[“"]?\{\{\w+\}\}[”"]?/g,
                '',
              )}
            </Text>
            {text !== null && (
              <Text size="sm" style={{ whiteSpace: 'pre-wrap' }}>
                {text}
              </Text>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

/** A ticket as it was at an instant, and what has changed since. */
export function AsItWas() {
  const { t } = useWords();
  const me = useMe();
  const times = useTimes();
  const now = useNow(60_000);
  const number = Number(useParams().number);
  const [params, setParams] = useSearchParams();
  const at = Number(params.get('at') ?? now);
  const { data, error, isPending } = useQuery({
    queryKey: ['records', 'ticket', number, at],
    queryFn: () => call(api.records.ticket, { params: { number }, query: { at } }),
    retry: false,
  });
  const isOnDesk = me.areas.includes('desk');
  return (
    <Container size="md" py="lg">
      <Title order={1} size="h3">
        {t('records/was/title', { number, when: times.full(at) })}
      </Title>
      <Group align="end" my="sm">
        <InstantInput
          label={t('records/was/when')}
          value={at}
          onChange={(next) => next !== null && setParams({ at: String(next) }, { replace: true })}
        />
        <Anchor
          component={Link}
          size="sm"
          to={isOnDesk ? `/desk/everything/${number}` : `/ask/tickets/${number}`}
        >
          {t('records/was/now')}
        </Anchor>
      </Group>
      {isPending && <Waiting />}
      {error && <Text role="alert">{t('records/was/notYet')}</Text>}
      {error && <ProblemNote error={error} />}
      {data && (
        <>
          <Title order={2} size="h4">
            {t('records/was/fields')}
          </Title>
          <Fields was={data} />
          <Entries title={t('records/was/said')} entries={data.entries.filter(({ isLater }) => !isLater)} />
          <Entries title={t('records/was/later')} entries={data.entries.filter(({ isLater }) => isLater)} />
        </>
      )}
    </Container>
  );
}
