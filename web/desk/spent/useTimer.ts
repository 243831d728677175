import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import type { BodyInputOf } from '../../../contract/endpoint';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';

/** My running timer, which the server keeps: it survives a reload. */
export function useTimer() {
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: ['timer'], staleTime: 30_000, queryFn: () => call(api.spent.timer) });
  const renew = () =>
    Promise.all([
      client.invalidateQueries({ queryKey: ['timer'] }),
      client.invalidateQueries({ queryKey: ['spent'] }),
    ]);
  const start = useMutation({
    mutationFn: (number: number) => call(api.spent.start, { params: { number }, key: nanoid() }),
    onSettled: renew,
  });
  const stop = useMutation({
    mutationFn: (body: BodyInputOf<typeof api.spent.stop>) => call(api.spent.stop, { body, key: nanoid() }),
    onSettled: renew,
  });
  return { timer: data?.timer ?? null, start, stop, renew };
}
