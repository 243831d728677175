import { TextInput } from '@mantine/core';
import { useCallback, useState } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import type { RoomsHome, RoomView } from '../../contract/rooms';
import { ApiProblem } from '../api/call';
import { useNow } from '../api/clock';
import { useMe } from '../api/queries';
import '../messages/roomsWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import { PersonPicker } from '../ui/PersonPicker';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { Board } from './Board';
import { callRooms } from './callRooms';
import { FormDialog } from './FormDialog';
import { Log } from './Log';
import { RoomNotices } from './RoomNotices';
import { RoomList } from './RoomList';
import classes from './Rooms.module.css';
import { useActing } from './useActing';
import { useHome, useLog, useRoomsLive, useSaid, type OpenedForm } from './useRooms';
import { Wish } from './Wish';
import { Writing } from './Writing';

const MOST_NAMED = 6;

function Found({ q, home }: { q: string; home: RoomsHome }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { data, error } = useSaid(q);
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Waiting />;
  return (
    <div className={classes.scroll}>
      {data.length === 0 && <p className={classes.quiet}>{t('rooms/nothingFound')}</p>}
      <ol className={classes.log}>
        {data.map(({ id, at, by, text, roomId }) => (
          <li key={id} className={classes.line}>
            <span className={classes.time}>{times.hour(at)}</span>
            <span className={classes.who}>{by?.name ?? 'Listo'}</span>
            <div className={classes.what}>
              <Link to={`/rooms/${roomId}`}>
                {home.rooms.find((room) => room.id === roomId)?.name ?? t('rooms/direct')},{' '}
                {times.when(at, now)}
              </Link>
              <br />
              <bdi>{text}</bdi>
            </div>
          </li>
        ))}
      </ol>
    </div>
  );
}

function Head({
  room,
  here,
  q,
  onSearch,
}: {
  room: RoomView;
  here: string[];
  q: string;
  onSearch(q: string): void;
}) {
  const { t } = useWords();
  const { kind, topic, name, members, hasListo, people } = room;
  const about =
    kind === 'open' || kind === 'direct'
      ? t(`rooms/${kind}`)
      : kind === 'listo'
        ? t('rooms/listoTopic')
        : t('rooms/closed', { count: members });
  const present = people.filter(({ id }) => here.includes(id)).map((person) => person.name);
  return (
    <header className={classes.head}>
      <div>
        <h1>{kind === 'listo' ? t('rooms/assistant') : <bdi>{name}</bdi>}</h1>
        <p>
          {[about, topic, hasListo && kind === 'open' ? t('rooms/withListo') : '']
            .filter(Boolean)
            .join(' · ')}
        </p>
        {present.length > 0 && (
          <p>
            {t('rooms/here')}: {present.slice(0, MOST_NAMED).join(', ')}
          </p>
        )}
      </div>
      <TextInput
        type="search"
        size="xs"
        aria-label={t('rooms/search')}
        placeholder={t('rooms/search')}
        value={q}
        onChange={({ target }) => onSearch(target.value)}
      />
    </header>
  );
}

function Room({ roomId, home, here }: { roomId: string; home: RoomsHome; here: string[] }) {
  const { t } = useWords();
  const acting = useActing();
  const [q, setQ] = useState('');
  const { data: room, error, refetch } = useLog(roomId);
  if (error && !room)
    return error instanceof ApiProblem && error.code === 'notFound' ? (
      <Lost />
    ) : (
      <ProblemNote error={error} onRetry={() => void refetch()} />
    );
  if (!room) return <Waiting />;
  const meId = home.me.id;
  return (
    <section className={classes.room}>
      <Head {...{ room, here, q, onSearch: setQ }} />
      <RoomNotices />
      {q.trim().length > 1 ? (
        <Found q={q} home={home} />
      ) : (
        <Log {...{ room, meId, acting, meHandle: home.me.handle, messageActions: home.messageActions }} />
      )}
      <div className={classes.foot}>
        <Writing roomId={roomId} threadId={null} label={t('rooms/write')} />
        {room.kind === 'closed' && (
          <details>
            <summary>{t('rooms/bringIn')}</summary>
            <PersonPicker
              label={t('rooms/whom')}
              onPick={(person) =>
                void callRooms('POST', `/rooms/${roomId}/members`, { personId: `c-${person.id}` }).then(() =>
                  refetch(),
                )
              }
            />
          </details>
        )}
        {room.kind === 'listo' && <Wish />}
      </div>
    </section>
  );
}

/** Workplace chat, read like a log; beside a team's room its open tickets. */
export function RoomsPage() {
  const { id = '' } = useParams();
  const { t } = useWords();
  const me = useMe();
  const { data: home, error, refetch } = useHome();
  const [form, setForm] = useState<OpenedForm | null>(null);
  const onForm = useCallback((opened: OpenedForm) => setForm(opened), []);
  const here = useRoomsLive(id, onForm);
  if (error && !home)
    return error instanceof ApiProblem && error.code === 'notFound' ? (
      <p className={classes.quiet}>{t('rooms/onlyDemo')}</p>
    ) : (
      <ProblemNote error={error} onRetry={() => void refetch()} />
    );
  if (!home) return <Waiting />;
  if (id === '') {
    const first =
      home.rooms.find(({ isMember, kind }) => isMember && kind === 'closed') ??
      home.rooms.find(({ isMember }) => isMember) ??
      home.rooms[0];
    if (first) return <Navigate to={`/rooms/${first.id}`} replace />;
  }
  return (
    <div className={classes.page}>
      {me.teams.length > 0 && <Board key={`board:${id}`} roomId={id} />}
      <Room key={id} {...{ roomId: id, home, here }} />
      <RoomList home={home} />
      {form && (
        <FormDialog
          key={JSON.stringify(form.form.callback)}
          opened={form}
          onClose={() => setForm((current) => (current === form ? null : current))}
        />
      )}
    </div>
  );
}
