import { Button, Checkbox, Group, Modal, Select, Stack, Table } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ConnectedRoom } from '../../../contract/chat';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useAllServices, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';

export const useChatRooms = () =>
  useQuery({ queryKey: ['chatRooms'], queryFn: () => call(api.chat.rooms), retry: false });

/** What Listo is to do in a room. */
function ConnectDialog({ room, onClose }: { room: ConnectedRoom; onClose(): void }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const { data: services = [] } = useAllServices();
  const [job, setJob] = useState(room.job ?? (room.kind === 'closed' ? ('team' as const) : ('ask' as const)));
  const [teamId, setTeamId] = useState(room.teamId);
  const [serviceId, setServiceId] = useState(room.serviceId ?? '');
  const [isEach, setEach] = useState(room.isEach);
  const connect = useMutation({
    mutationFn: () =>
      call(api.chat.connect, {
        params: { id: room.roomId },
        body: {
          ...{ job, isEach, language: room.language, version: room.version },
          teamId: job === 'team' ? teamId : null,
          serviceId: job === 'ask' ? serviceId || null : null,
        },
      }),
    onSuccess: () => {
      notifications.show({ message: t('rooms/setUp/connected') });
      onClose();
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['chatRooms'] }),
  });
  return (
    <Modal opened onClose={onClose} title={room.name}>
      <Stack gap="sm">
        <Select
          label={t('rooms/setUp/job')}
          allowDeselect={false}
          data={(['team', 'ask'] as const).map((value) => ({ value, label: t(`rooms/setUp/${value}`) }))}
          value={job}
          onChange={(value) => setJob(value as typeof job)}
        />
        {job === 'team' ? (
          <Select
            label={t('rooms/setUp/teamOf')}
            data={teams.map(({ id, name }) => ({ value: id, label: local(name) }))}
            value={teamId}
            onChange={setTeamId}
          />
        ) : (
          <>
            <Select
              label={t('rooms/setUp/serviceOf')}
              searchable
              allowDeselect={false}
              data={[
                { value: '', label: t('rooms/setUp/guessed') },
                ...services.map(({ id, title }) => ({ value: id, label: local(title) })),
              ]}
              value={serviceId}
              onChange={(value) => setServiceId(value ?? '')}
            />
            <Checkbox
              label={t('rooms/setUp/isEach')}
              checked={isEach}
              onChange={({ target }) => setEach(target.checked)}
            />
          </>
        )}
        <ProblemNote error={connect.error} />
        <Group gap="xs">
          <Button
            loading={connect.isPending}
            disabled={job === 'team' && teamId === null}
            onClick={() => connect.mutate()}
          >
            {t('rooms/setUp/connect').replace(' …', '')}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('common/cancel')}
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}

function RoomRow({ room, onOpen }: { room: ConnectedRoom; onOpen(): void }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const leave = useMutation({
    mutationFn: () => call(api.chat.disconnect, { params: { id: room.roomId } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['chatRooms'] }),
  });
  const team = teams.find(({ id }) => id === room.teamId);
  return (
    <Table.Tr>
      <Table.Td>
        <bdi>{room.name}</bdi>
        <small className={classes.small}>{room.kind === 'open' ? t('rooms/open') : ''}</small>
      </Table.Td>
      <Table.Td>
        {t(`rooms/setUp/${room.job ?? 'none'}`)}
        {team && <small className={classes.small}>{local(team.name)}</small>}
        {room.state === 'stopped' && (
          <small className={classes.error}>{t('rooms/setUp/stopped', { who: room.reason })}</small>
        )}
      </Table.Td>
      <Table.Td ta="right">
        <Button size="compact-sm" variant="default" onClick={onOpen}>
          {t(room.job === null ? 'rooms/setUp/connect' : 'rooms/setUp/change')}
        </Button>{' '}
        {room.job !== null && (
          <Button size="compact-sm" variant="subtle" loading={leave.isPending} onClick={() => leave.mutate()}>
            {t('rooms/setUp/disconnect')}
          </Button>
        )}
        <ProblemNote error={leave.error} />
      </Table.Td>
    </Table.Tr>
  );
}

/** The rooms of the chat, and what Listo does in each. */
export function Connections() {
  const { t } = useWords();
  const { data, error, refetch } = useChatRooms();
  const [openId, setOpenId] = useState<string | null>(null);
  if (error) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  const opened = data.find(({ roomId }) => roomId === openId);
  return (
    <section className={classes.section}>
      <h2>{t('rooms/rooms')}</h2>
      <Table>
        <Table.Thead>
          <Table.Tr>
            <Table.Th w={220}>{t('rooms/setUp/room')}</Table.Th>
            <Table.Th>{t('rooms/setUp/job')}</Table.Th>
            <Table.Th>
              <span />
            </Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {data.map((room) => (
            <RoomRow key={room.roomId} room={room} onOpen={() => setOpenId(room.roomId)} />
          ))}
        </Table.Tbody>
      </Table>
      {opened && <ConnectDialog room={opened} onClose={() => setOpenId(null)} />}
    </section>
  );
}
