import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useSearchParams } from 'react-router';
import type { BodyInputOf } from '../../contract/endpoint';
import type { ThingRef } from '../../contract/estate';
import { call } from '../api/call';
import { api } from '../api/endpoints';

const NAMES = ['q', 'kindId', 'state', 'siteId', 'only'] as const;
/** What narrows the list of things; blank: nothing. */
export type Narrowing = Record<(typeof NAMES)[number], string>;

/** What narrows the list stands in the address, so that it can be sent on and come back to. */
export function useNarrowing(): [Narrowing, (name: keyof Narrowing, value: string | null) => void] {
  const [params, setParams] = useSearchParams();
  const narrowing = Object.fromEntries(NAMES.map((name) => [name, params.get(name) ?? ''])) as Narrowing;
  const set = (name: keyof Narrowing, value: string | null): void =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  return [narrowing, set];
}

export const useThings = ({ q, ...narrowing }: Narrowing) =>
  useInfiniteQuery({
    queryKey: ['things', 'list', { q, ...narrowing }],
    initialPageParam: undefined as string | undefined,
    queryFn: ({ pageParam }) =>
      call(api.estate.list, {
        query: {
          ...{ q, after: pageParam },
          ...Object.fromEntries(Object.entries(narrowing).filter(([, value]) => value !== '')),
        },
      }),
    getNextPageParam: ({ after }) => after ?? undefined,
    placeholderData: (before) => before,
  });

export const useThing = (id: string) =>
  useQuery({
    queryKey: ['things', 'one', id],
    queryFn: () => call(api.estate.get, { params: { id } }),
  });

export const useHangs = (id: string) =>
  useQuery({
    queryKey: ['things', 'hangs', id],
    queryFn: () => call(api.estate.hangs, { params: { id } }),
  });

export const useKinds = () =>
  useQuery({ queryKey: ['things', 'kinds'], queryFn: () => call(api.estate.kinds) });

/** Lets all that shows things be asked anew. */
export function useRenewThings(): () => Promise<unknown> {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: ['things'] });
}

type Act = BodyInputOf<typeof api.estate.act>;

/** Does something with a thing. */
export function useAct(id: string) {
  const renew = useRenewThings();
  return useMutation({
    mutationFn: (body: Act) => call(api.estate.act, { params: { id }, body, key: nanoid() }),
    onSettled: renew,
  });
}

/** The shape of a standing, for those who see no colour: whole, open, struck through. */
export const SHAPES: Record<ThingRef['standing'], string> = { up: '●', weakened: '○', down: '⊘' };
