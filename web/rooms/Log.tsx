import { Button } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { Fragment, useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { MessageAction, RoomView, RoomsHome } from '../../contract/rooms';
import { MOST_LINES } from '../../core/chat';
import { useWords } from '../messages/useWords';
import { useStable } from '../ui/useStable';
import { callRooms } from './callRooms';
import { Line } from './Line';
import { Thread } from './Thread';
import classes from './Rooms.module.css';
import type { Acting } from './useActing';

type Props = {
  room: RoomView;
  meId: string;
  meHandle: string;
  acting: Acting;
  messageActions: MessageAction[];
};

/** Tells the chat how far one has read, while the room is open. */
function useRead({ id, messages, isMember }: RoomView): void {
  const client = useQueryClient();
  const place = messages.at(-1)?.place ?? 0;
  useEffect(() => {
    if (!isMember || place === 0) return;
    void callRooms('POST', `/rooms/${id}/read`, { place }).catch(() => undefined);
    client.setQueryData<RoomsHome>(['rooms', 'home'], (home) =>
      home
        ? {
            ...home,
            rooms: home.rooms.map((room) => (room.id === id ? { ...room, unread: 0, calls: 0 } : room)),
          }
        : home,
    );
  }, [client, id, isMember, place]);
}

/** Goes to the line that the address names, however long ago it was said. */
function useWantedLine(
  { messages, isMore }: RoomView,
  { showEarlier, onFound }: { showEarlier(): Promise<void>; onFound(id: string): void },
): void {
  const [params] = useSearchParams();
  const wanted = params.get('line');
  const isHere = messages.some(({ id }) => id === wanted);
  const earliest = messages[0]?.place;
  const arrivedAt = useRef<string | null>(null);
  const goOn = useStable(() => {
    // Once there, one looks further back oneself.
    if (wanted === null || arrivedAt.current === wanted) return;
    if (isHere) {
      arrivedAt.current = wanted;
      onFound(wanted);
      document.getElementById(`line-${wanted}`)?.scrollIntoView({ block: 'center' });
    } else if (isMore) void showEarlier().catch(() => undefined);
  });
  useEffect(() => goOn(), [wanted, isHere, earliest, goOn]);
}

/** What was said, the latest at the end. */
export function Log({ room, meId, meHandle, acting, messageActions }: Props) {
  const { t } = useWords();
  const client = useQueryClient();
  const [chosen, setChosen] = useState<string[]>([]);
  // Where one left off, as it was when the room was opened.
  const [readPlace] = useState(room.readPlace);
  const box = useRef<HTMLDivElement>(null);
  const { id, messages, isMore } = room;
  useRead(room);
  const last = messages.at(-1)?.id;
  useEffect(() => {
    const { current } = box;
    if (current) current.scrollTop = current.scrollHeight;
  }, [id, last]);
  useWantedLine(room, { showEarlier, onFound: (line) => setChosen([line]) });
  function choose(messageId: string, isAlso: boolean): void {
    const ids = isAlso
      ? [...chosen.filter((each) => each !== messageId), messageId]
      : chosen.includes(messageId)
        ? []
        : [messageId];
    setChosen(messages.filter((message) => ids.includes(message.id)).map((message) => message.id));
  }
  async function showEarlier(): Promise<void> {
    const earlier = await callRooms<RoomView>('GET', `/rooms/${id}?before=${messages[0]!.place}`);
    client.setQueryData<RoomView>(['rooms', 'log', id, null], (log) =>
      log ? { ...log, messages: [...earlier.messages, ...log.messages], isMore: earlier.isMore } : log,
    );
  }
  const firstNew =
    readPlace > 0 ? messages.find(({ place, by }) => place > readPlace && by?.id !== meId)?.id : undefined;
  return (
    <div className={classes.scroll} ref={box} tabIndex={0} role="region" aria-label={t('rooms/log')}>
      {isMore && (
        <Button variant="subtle" size="compact-sm" onClick={() => void showEarlier()}>
          {t('rooms/earlier')}
        </Button>
      )}
      {messages.length === 0 && <p className={classes.quiet}>{t('rooms/empty')}</p>}
      <ol className={classes.log} aria-live="polite">
        {messages.map((message, i) => (
          <Fragment key={message.id}>
            {message.id === firstNew && (
              <li className={classes.since}>
                <span>{t('rooms/since')}</span>
              </li>
            )}
            <Line
              {...{ message, meId, meHandle, acting, messageActions, chosen, onChoose: choose }}
              thread={<Thread {...{ message, meId, meHandle, acting, messageActions, chosen }} />}
              before={messages
                .slice(0, i)
                .flatMap(({ id: each, by }) => (by ? [each] : []))
                .slice(1 - MOST_LINES)}
            />
          </Fragment>
        ))}
      </ol>
    </div>
  );
}
