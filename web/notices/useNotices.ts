import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { call } from '../api/call';
import { api } from '../api/endpoints';

type Asked = { q?: string; service?: string | undefined; for?: string | null };

/** The notices that concern someone now, those that fit what they write first. */
export const useMyNotices = ({ q = '', service, for: forId }: Asked = {}) =>
  useQuery({
    queryKey: ['notices', 'mine', q, service, forId],
    placeholderData: keepPreviousData,
    queryFn: () =>
      call(api.notices.mine, { query: { q, ...(service && { service }), ...(forId && { for: forId }) } }),
  });

export const useNotices = (only: 'now' | 'past') =>
  useQuery({
    queryKey: ['notices', 'list', only],
    queryFn: () => call(api.notices.list, { query: { only } }),
  });

export const useNotice = (id: string) =>
  useQuery({ queryKey: ['notices', 'one', id], queryFn: () => call(api.notices.get, { params: { id } }) });

/** Lets all that shows notices be asked anew. */
export function useRenewNotices(): () => Promise<void> {
  const client = useQueryClient();
  return async () => {
    await Promise.all(['notices', 'ticket'].map((name) => client.invalidateQueries({ queryKey: [name] })));
  };
}

/** Says that one has it too, or no longer. */
export function useFollow() {
  const renew = useRenewNotices();
  return useMutation({
    mutationFn: ({ id, isFollowed }: { id: string; isFollowed: boolean }) =>
      call(api.notices.follow, { params: { id }, body: { isFollowed } }),
    onSettled: renew,
  });
}

/** Ties tickets to a notice. */
export function useTieTickets() {
  const renew = useRenewNotices();
  return useMutation({
    mutationFn: ({ id, numbers }: { id: string; numbers: number[] }) =>
      call(api.notices.tie, { params: { id }, body: { numbers }, key: nanoid() }),
    onSettled: renew,
  });
}
