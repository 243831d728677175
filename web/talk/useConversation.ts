import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import { call } from '../api/call';
import { follow } from '../api/follow';
import { renewSoon } from '../api/renew';
import { api } from '../api/endpoints';

export const useConversation = (id: string | null) =>
  useQuery({
    queryKey: ['conversation', id],
    enabled: id !== null,
    queryFn: () => call(api.conversations.get, { params: { id: id! } }),
  });

export const useAtDesk = () =>
  useQuery({ queryKey: ['conversations'], queryFn: () => call(api.conversations.atDesk) });

/** What the live stream says of a conversation; `isWords`: something was said, by whom. */
export type Heard = { id: string; by: string | null; isWords: boolean; side: 'person' | 'agent' };
type Wrote = { id: string; name: string; readBy: string };

const WRITING_MS = 4_000;
const writers = new Set<(wrote: Wrote) => void>();

/** Follows one's conversations, and renews what is shown of them. At the Desk, that one is there is known by it. */
export function useConversationsLive(
  isAtDesk: boolean,
  onHeard: (heard: Heard) => void = () => undefined,
): void {
  const client = useQueryClient();
  const current = useRef(onHeard);
  useEffect(() => {
    current.current = onHeard;
  });
  useEffect(() => {
    const renew = (...key: string[]): void => renewSoon(client, key);
    return follow(`/api/v1/conversations/live${isAtDesk ? '?at=desk' : ''}`, (source) => {
      source.addEventListener('ready', () => {
        renew('conversations');
        renew('conversation');
      });
      source.onmessage = ({ data }) => {
        const heard = JSON.parse(data as string) as Heard;
        void client.invalidateQueries({ queryKey: ['conversation', heard.id] });
        renew('conversations');
        renew('myConversation');
        renew('chatOverview');
        current.current(heard);
      };
      source.addEventListener('writing', ({ data }) => {
        const wrote = JSON.parse(String(data)) as Wrote;
        writers.forEach((hear) => hear(wrote));
      });
    });
  }, [client, isAtDesk]);
}

/** Who is writing in it right now. */
export function useWriter(id: string): Wrote | null {
  const [wrote, setWrote] = useState<Wrote | null>(null);
  useEffect(() => {
    const hear = (next: Wrote): void => {
      if (next.id === id) setWrote(next);
    };
    writers.add(hear);
    return () => void writers.delete(hear);
  }, [id]);
  useEffect(() => {
    if (!wrote) return;
    const timer = setTimeout(() => setWrote(null), WRITING_MS);
    return () => clearTimeout(timer);
  }, [wrote]);
  return wrote;
}

type Deed = 'accept' | 'decline' | 'end' | 'comeBack';

/** What is done with a conversation by one word. */
export function useDeed(id: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (deed: Deed) => call(api.conversations[deed], { params: { id }, key: nanoid() }),
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: ['conversation', id] });
      await client.invalidateQueries({ queryKey: ['conversations'] });
    },
  });
}
