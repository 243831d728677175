import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';

const KEY = ['programs'] as const;

/** All accounts of programs. */
export const usePrograms = () => useQuery({ queryKey: KEY, queryFn: () => call(api.programs.list) });

/** What a program is told. */
export const useWebhooks = (id: string) =>
  useQuery({
    queryKey: [...KEY, id, 'webhooks'],
    queryFn: () => call(api.webhooks.list, { params: { id } }),
    // What is in line moves by itself.
    refetchInterval: 5_000,
  });

/** Makes all that shows programs be asked anew. */
export function useRenewPrograms(): () => Promise<unknown> {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: KEY });
}

export type DeliveryFilter = 'all' | 'waiting' | 'delivered' | 'undelivered';

/** Messages to a webhook, the newest first, page by page. */
export const useDeliveries = (id: string, filter: DeliveryFilter) =>
  useInfiniteQuery({
    queryKey: [...KEY, 'deliveries', id, filter],
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }) =>
      call(api.webhooks.deliveries, {
        params: { id },
        query: {
          ...(filter !== 'all' && { state: filter }),
          ...(pageParam !== null && { before: pageParam }),
        },
      }),
    getNextPageParam: ({ before }) => before,
  });

/** Calls to outside addresses, the newest first, page by page. */
export const useCalls = (isFailed: boolean) =>
  useInfiniteQuery({
    queryKey: ['calls', isFailed],
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }) =>
      call(api.calls.list, {
        query: { ...(isFailed && { only: 'failed' }), ...(pageParam !== null && { before: pageParam }) },
      }),
    getNextPageParam: ({ before }) => before,
  });
