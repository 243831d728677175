import { Button, Group, Select, Switch, Table, Textarea, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { ChatNotice } from '../../../contract/chat';
import { NOTICE_BLANKS, NOTICE_EVENTS, type NoticeEvent } from '../../../core/chat';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useTeams } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { PersonPicker } from '../../ui/PersonPicker';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from '../Workshop.module.css';
import { useChatRooms } from './Connections';

function useRenewed() {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: ['chatNotices'] });
}

function Notice({ notice }: { notice: ChatNotice }) {
  const { t, local } = useWords();
  const renew = useRenewed();
  const { data: rooms = [] } = useChatRooms();
  const { data: teams = [] } = useTeams();
  const params = { id: notice.id };
  const tried = useMutation({
    mutationFn: () => call(api.chat.tryNotice, { params }),
    onSuccess: () => notifications.show({ message: t('rooms/setUp/tried') }),
    onSettled: renew,
  });
  const turn = useMutation({
    mutationFn: (isOn: boolean) => call(api.chat.turnNotice, { params, body: { isOn } }),
    onSettled: renew,
  });
  const remove = useMutation({ mutationFn: () => call(api.chat.removeNotice, { params }), onSettled: renew });
  const team = teams.find(({ id }) => id === notice.teamId);
  const toTeam = teams.find(({ id }) => id === notice.toTeamId);
  const toGroup = toTeam?.groups.find(({ id }) => id === notice.toGroupId);
  const to =
    toTeam && toGroup
      ? `${local(toTeam.name)} · ${toGroup.name}`
      : toTeam
        ? local(toTeam.name)
        : (notice.person ?? rooms.find(({ roomId }) => roomId === notice.roomId)?.name);
  return (
    <Table.Tr>
      <Table.Td>
        <bdi>{notice.name}</bdi>
        <small className={classes.small}>
          {t(`rooms/setUp/events/${notice.event}`)}, {team ? local(team.name) : t('rooms/setUp/anyTeam')}
        </small>
      </Table.Td>
      <Table.Td>
        <bdi>{notice.words}</bdi>
        <small className={classes.small}>{t('rooms/setUp/sentTo', { to })}</small>
      </Table.Td>
      <Table.Td>
        <Group gap="xs" justify="flex-end" wrap="nowrap">
          <Button
            size="compact-sm"
            variant="default"
            loading={tried.isPending}
            onClick={() => tried.mutate()}
          >
            {t('rooms/setUp/try')}
          </Button>
          <Switch
            label={t(notice.isOn ? 'rooms/setUp/on' : 'rooms/setUp/off')}
            checked={notice.isOn}
            onChange={({ target }) => turn.mutate(target.checked)}
          />
          <Button size="compact-sm" variant="subtle" onClick={() => remove.mutate()}>
            {t('rooms/setUp/remove')}
          </Button>
        </Group>
        <ProblemNote error={tried.error ?? turn.error ?? remove.error} />
      </Table.Td>
    </Table.Tr>
  );
}

const EMPTY = {
  name: '',
  event: 'newTicket' as NoticeEvent,
  teamId: '',
  kind: 'room' as 'room' | 'person' | 'team',
  to: '',
  /** The person’s name, where it is one. */
  toName: '',
  words: '{priority} {number} {title}, {requester}',
};

function NewNotice() {
  const { t, local } = useWords();
  const renew = useRenewed();
  const { data: rooms = [] } = useChatRooms();
  const { data: teams = [] } = useTeams();
  const [draft, setDraft, clear] = useDraft('chatNotice', EMPTY);
  const add = useMutation({
    mutationFn: () =>
      call(api.chat.addNotice, {
        body: {
          ...{ name: draft.name, event: draft.event, words: draft.words, teamId: draft.teamId || null },
          roomId: draft.kind === 'room' ? draft.to : null,
          personId: draft.kind === 'person' ? draft.to : null,
          toTeamId: draft.kind === 'team' ? draft.to.split('/')[0]! : null,
          toGroupId: draft.kind === 'team' ? (draft.to.split('/')[1] ?? null) : null,
        },
      }),
    onSuccess: clear,
    onSettled: renew,
  });
  const inRooms = rooms.map(({ roomId, name }) => ({ value: roomId, label: name }));
  const inTeams = teams.flatMap(({ id, name, groups }) => [
    { value: id, label: local(name) },
    ...groups.map((group) => ({ value: `${id}/${group.id}`, label: `${local(name)} · ${group.name}` })),
  ]);
  const set = (change: Partial<typeof EMPTY>): void => setDraft({ ...draft, ...change });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate();
      }}
    >
      <Group align="flex-end" gap="sm">
        <TextInput
          label={t('rooms/name')}
          value={draft.name}
          onChange={({ target }) => set({ name: target.value })}
        />
        <Select
          label={t('rooms/setUp/event')}
          allowDeselect={false}
          data={NOTICE_EVENTS.map((value) => ({ value, label: t(`rooms/setUp/events/${value}`) }))}
          value={draft.event}
          onChange={(value) => set({ event: value as NoticeEvent })}
        />
        <Select
          label={t('rooms/setUp/teamOf')}
          allowDeselect={false}
          data={[
            { value: '', label: t('rooms/setUp/anyTeam') },
            ...teams.map(({ id, name }) => ({ value: id, label: local(name) })),
          ]}
          value={draft.teamId}
          onChange={(value) => set({ teamId: value ?? '' })}
        />
        <Select
          label={t('rooms/setUp/to')}
          allowDeselect={false}
          data={(['room', 'person', 'team'] as const).map((value) => ({
            value,
            label: t(`rooms/setUp/toKinds/${value}`),
          }))}
          value={draft.kind}
          onChange={(value) => set({ kind: value as typeof draft.kind, to: '', toName: '' })}
        />
        {draft.kind === 'person' ? (
          <PersonPicker
            label={t('rooms/setUp/toKinds/person')}
            placeholder={draft.toName}
            onPick={({ id, name }) => set({ to: id, toName: name })}
          />
        ) : (
          <Select
            searchable
            label={t(`rooms/setUp/toKinds/${draft.kind}`)}
            data={draft.kind === 'room' ? inRooms : inTeams}
            value={draft.to || null}
            onChange={(value) => set({ to: value ?? '' })}
          />
        )}
      </Group>
      <Textarea
        mt="xs"
        autosize
        label={t('rooms/setUp/words')}
        description={t('rooms/setUp/blanks', {
          blanks: NOTICE_BLANKS.map((blank) => `{${blank}}`).join(' '),
        })}
        value={draft.words}
        onChange={({ target }) => set({ words: target.value })}
      />
      <ProblemNote error={add.error} />
      <Button
        mt="xs"
        type="submit"
        variant="default"
        loading={add.isPending}
        disabled={draft.name.trim() === '' || draft.to === ''}
      >
        {t('rooms/setUp/add')}
      </Button>
    </form>
  );
}

/** Messages that go out when something happens. */
export function Notices() {
  const { t } = useWords();
  const { data, error } = useQuery({ queryKey: ['chatNotices'], queryFn: () => call(api.chat.notices) });
  return (
    <section className={classes.section}>
      <h2>{t('rooms/setUp/notices')}</h2>
      <p className={classes.small}>{t('rooms/setUp/noticesLead')}</p>
      <ProblemNote error={error} />
      {data?.length === 0 && <p>{t('rooms/setUp/noNotices')}</p>}
      {data && data.length > 0 && (
        <Table>
          <Table.Tbody>
            {data.map((notice) => (
              <Notice key={notice.id} notice={notice} />
            ))}
          </Table.Tbody>
        </Table>
      )}
      <NewNotice />
    </section>
  );
}
