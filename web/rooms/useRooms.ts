import { keepPreviousData, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { RoomMessage, RoomPerson, RoomsHome, RoomsLive, RoomView } from '../../contract/rooms';
import { listCalled, type ChatForm } from '../../core/chat';
import { follow } from '../api/follow';
import { renewSoon } from '../api/renew';
import { callRooms, LIVE_ADDRESS } from './callRooms';

export const useHome = () =>
  useQuery({ queryKey: ['rooms', 'home'], queryFn: () => callRooms<RoomsHome>('GET', '/') });

const logKey = (roomId: string, threadId: string | null) => ['rooms', 'log', roomId, threadId];

/** What was said in a room, or in one of its threads. */
export const useLog = (roomId: string, threadId: string | null = null) =>
  useQuery({
    queryKey: logKey(roomId, threadId),
    enabled: roomId !== '',
    staleTime: 60_000,
    queryFn: () =>
      callRooms<RoomView>('GET', `/rooms/${roomId}${threadId === null ? '' : `?thread=${threadId}`}`),
  });

export const useRoomPeople = (q: string) =>
  useQuery({
    queryKey: ['rooms', 'people', q],
    placeholderData: keepPreviousData,
    queryFn: () => callRooms<RoomPerson[]>('GET', `/people?q=${encodeURIComponent(q)}`),
  });

export const useSaid = (q: string) =>
  useQuery({
    queryKey: ['rooms', 'said', q],
    enabled: q.trim().length > 1,
    placeholderData: keepPreviousData,
    queryFn: () => callRooms<RoomMessage[]>('GET', `/search?q=${encodeURIComponent(q)}`),
  });

/** Puts a message where it stands, or in place of itself. */
function put(messages: RoomMessage[], message: RoomMessage): RoomMessage[] {
  const others = messages.filter(({ id }) => id !== message.id);
  return [...others, message].sort((a, b) => a.place - b.place);
}

function take(client: QueryClient, message: RoomMessage, roomId: string): void {
  client.setQueryData<RoomView>(logKey(message.roomId, message.threadId), (log) =>
    log ? { ...log, messages: put(log.messages, message) } : log,
  );
  const isNew = message.editedAt === null && message.replies === 0;
  const called = listCalled(message.text);
  client.setQueryData<RoomsHome>(['rooms', 'home'], (home) =>
    home && isNew && message.roomId !== roomId && message.by?.id !== home.me.id
      ? {
          ...home,
          rooms: home.rooms.map((room) =>
            room.id === message.roomId && room.isMember
              ? {
                  ...room,
                  unread: room.unread + (message.threadId === null ? 1 : 0),
                  calls: room.calls + (called.includes(home.me.handle) ? 1 : 0),
                }
              : room,
          ),
        }
      : home,
  );
}

export type OpenedForm = { form: ChatForm; roomId: string };

/** Follows the chat while it is open: what is said, forms for oneself, who is here. */
export function useRoomsLive(roomId: string, onForm: (opened: OpenedForm) => void): string[] {
  const client = useQueryClient();
  const [here, setHere] = useState<string[]>([]);
  useEffect(() => {
    let isFirst = true;
    return follow(LIVE_ADDRESS, (source) => {
      source.addEventListener('ready', () => {
        // After a break, what was missed is asked for.
        if (!isFirst) void client.invalidateQueries({ queryKey: ['rooms'] });
        isFirst = false;
      });
      source.onmessage = ({ data }) => {
        const event = JSON.parse(data as string) as RoomsLive;
        if (event.kind === 'message') take(client, event.message, roomId);
        else if (event.kind === 'form') onForm({ form: event.form, roomId: event.roomId });
        else if (event.kind === 'here') setHere(event.ids);
        else renewSoon(client, ['rooms', 'home']);
      };
    });
  }, [client, roomId, onForm]);
  return here;
}
