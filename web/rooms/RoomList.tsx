import { Button, Checkbox, Modal, MultiSelect, Stack, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { NavLink, useNavigate } from 'react-router';
import type { RoomInList, RoomsHome } from '../../contract/rooms';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { callRooms } from './callRooms';
import classes from './Rooms.module.css';
import { useRoomPeople } from './useRooms';

const MOST_SHOWN = 99;

function Entry({ room, name }: { room: RoomInList; name?: string }) {
  const { t } = useWords();
  return (
    <li>
      <NavLink to={`/rooms/${room.id}`} data-unread={room.unread + room.calls > 0}>
        <bdi>{name ?? room.name}</bdi>
        {room.calls > 0 && <b aria-label={t('rooms/called', { count: room.calls })}>@{room.calls}</b>}
        {room.unread > 0 && (
          <span aria-label={t('rooms/unread', { count: room.unread })}>
            {room.unread > MOST_SHOWN ? `${MOST_SHOWN}+` : room.unread}
          </span>
        )}
      </NavLink>
    </li>
  );
}

/** A new room, or the talk with one or several people. */
function NewDialog({ isTalk, onClose }: { isTalk: boolean; onClose(): void }) {
  const { t } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [topic, setTopic] = useState('');
  const [isClosed, setClosed] = useState(false);
  const [ids, setIds] = useState<string[]>([]);
  const [known, setKnown] = useState<Record<string, string>>({});
  const [q, setQ] = useState('');
  const { data: found = [] } = useRoomPeople(q);
  const make = useMutation({
    mutationFn: () =>
      isTalk
        ? callRooms<{ id: string }>('POST', '/directs', { personIds: ids })
        : callRooms<{ id: string }>('POST', '/', { name, topic, kind: isClosed ? 'closed' : 'open' }),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['rooms', 'home'] });
      onClose();
      await navigate(`/rooms/${id}`);
    },
  });
  const people = { ...Object.fromEntries(found.map((person) => [person.id, person.name])), ...known };
  return (
    <Modal opened onClose={onClose} title={t(isTalk ? 'rooms/newTalk' : 'rooms/newRoom')}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <Stack gap="sm">
          {isTalk ? (
            <MultiSelect
              label={t('rooms/whom')}
              searchable
              data={Object.entries(people)
                .filter(([id]) => id !== `c-${me.id}`)
                .map(([value, label]) => ({ value, label }))}
              value={ids}
              onSearchChange={setQ}
              onChange={(chosen) => {
                setKnown(Object.fromEntries(chosen.map((id) => [id, people[id] ?? id])));
                setIds(chosen);
              }}
            />
          ) : (
            <>
              <TextInput
                label={t('rooms/name')}
                value={name}
                onChange={({ target }) => setName(target.value)}
              />
              <TextInput
                label={t('rooms/topic')}
                value={topic}
                onChange={({ target }) => setTopic(target.value)}
              />
              <Checkbox
                label={t('rooms/closedRoom')}
                checked={isClosed}
                onChange={({ target }) => setClosed(target.checked)}
              />
            </>
          )}
          <ProblemNote error={make.error} />
          <Button
            type="submit"
            loading={make.isPending}
            disabled={isTalk ? ids.length === 0 : name.trim() === ''}
          >
            {t('rooms/make')}
          </Button>
        </Stack>
      </form>
    </Modal>
  );
}

/** The rooms and people that one talks to, with what is not read. */
export function RoomList({ home }: { home: RoomsHome }) {
  const { t } = useWords();
  const [isMaking, setMaking] = useState<'room' | 'talk' | null>(null);
  const of = (...kinds: RoomInList['kind'][]): RoomInList[] =>
    home.rooms.filter(({ kind }) => kinds.includes(kind));
  return (
    <nav className={classes.list} aria-label={t('rooms/list')}>
      <h2>{t('rooms/rooms')}</h2>
      <ul>
        {of('open', 'closed').map((room) => (
          <Entry key={room.id} room={room} />
        ))}
      </ul>
      <button type="button" onClick={() => setMaking('room')}>
        {t('rooms/newRoom')}
      </button>
      <h2>{t('rooms/people')}</h2>
      <ul>
        {of('direct').map((room) => (
          <Entry key={room.id} room={room} />
        ))}
      </ul>
      <button type="button" onClick={() => setMaking('talk')}>
        {t('rooms/newTalk')}
      </button>
      <h2>{t('rooms/listo')}</h2>
      <ul>
        {of('listo').map((room) => (
          <Entry key={room.id} room={room} name={t('rooms/assistant')} />
        ))}
      </ul>
      {isMaking && <NewDialog isTalk={isMaking === 'talk'} onClose={() => setMaking(null)} />}
    </nav>
  );
}
