import { Anchor, Button, SegmentedControl, Table, Text } from '@mantine/core';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { NoticeCard } from '../../../contract/notices';
import { useMe, useTeams } from '../../api/queries';
import { EstateFrame } from '../EstateFrame';
import '../../messages/noticesWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { useStretchWords } from '../../notices/Bands';
import { NoticeEditor, type NoticeSeed } from './NoticeEditor';
import { useNotices } from '../../notices/useNotices';

function Row({ notice }: { notice: NoticeCard }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const stretchOf = useStretchWords();
  const { id, title, kind, state, isMajor, isLonger, lead, teamId, tickets, followers } = notice;
  const team = teams.find((each) => each.id === teamId);
  return (
    <Table.Tr>
      <Table.Td>
        <Anchor component={Link} size="sm" to={`/estate/notices/${id}`}>
          <bdi>{local(title)}</bdi>
        </Anchor>
        <Text size="xs" c="var(--muted)">
          {t(`notices/kinds/${kind}`)}
          {isMajor && <b> · {t('notices/major')}</b>}
        </Text>
      </Table.Td>
      <Table.Td>
        {t(`notices/states/${state}`)}
        {isLonger && `, ${t('notices/longer')}`}
        <Text size="xs" c="var(--muted)">
          {stretchOf(notice)}
        </Text>
      </Table.Td>
      <Table.Td>
        {team && local(team.name)}
        <Text size="xs" c="var(--muted)">
          {lead?.name}
        </Text>
      </Table.Td>
      <Table.Td>
        {tickets > 0 && t('notices/tickets', { count: tickets })}
        <Text size="xs" c="var(--muted)">
          {followers > 0 && t('notices/followers', { count: followers })}
        </Text>
      </Table.Td>
    </Table.Tr>
  );
}

/** What a notice was asked for from: a ticket, a surge of them, or a thing. */
function seedOf(search: URLSearchParams): NoticeSeed {
  const title = search.get('title');
  const [thing, name, team] = [search.get('thing'), search.get('name'), search.get('team')];
  return {
    ofTicket: Number(search.get('ticket')) || null,
    numbers: (search.get('numbers') ?? '')
      .split(',')
      .map(Number)
      .filter((each) => each > 0),
    serviceIds: search.getAll('service'),
    ...(title !== null && { title: { en: title, pt: title } }),
    ...(thing !== null && { things: [{ id: thing, name: name ?? thing }] }),
    ...(team !== null && { teamId: team }),
  };
}

/** Outages and planned work in one list: what goes on and what comes, or what is over. */
export function NoticesPage() {
  const { t } = useWords();
  const me = useMe();
  const [search, setSearch] = useSearchParams();
  const [only, setOnly] = useState<'now' | 'past'>('now');
  const { data, error, refetch } = useNotices(only);
  const isWriting = search.has('new');
  return (
    <EstateFrame
      title={t('notices/title')}
      lead={t('notices/lead')}
      actions={
        me.teams.length > 0 && <Button onClick={() => setSearch({ new: '1' })}>{t('notices/new')}</Button>
      }
    >
      <SegmentedControl
        size="xs"
        mb="sm"
        value={only}
        data={(['now', 'past'] as const).map((value) => ({ value, label: t(`notices/${value}`) }))}
        onChange={(value) => setOnly(value)}
      />
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data?.length === 0 && <p>{t(only === 'now' ? 'notices/none' : 'notices/nonePast')}</p>}
      {data && data.length > 0 && (
        <Table.ScrollContainer minWidth={620}>
          <Table>
            <Table.Tbody>
              {data.map((notice) => (
                <Row key={notice.id} notice={notice} />
              ))}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
      )}
      {isWriting && <NoticeEditor seed={seedOf(search)} onClose={() => setSearch({})} />}
    </EstateFrame>
  );
}
