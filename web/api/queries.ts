import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from './endpoints';
import type { Me } from '../../contract/session';
import { call } from './call';
import { noteChange } from './changes';
import { setServerNow } from './clock';

export function useSession() {
  return useQuery({
    queryKey: ['session'],
    staleTime: 60_000,
    queryFn: async () => {
      const session = await call(api.session.get);
      setServerNow(session.now);
      return session;
    },
  });
}

/** The person who is signed in. @throws where nobody is */
export function useMe(): Me {
  const { data } = useSession();
  if (!data?.me) throw new Error('useMe is for pages behind the sign-in');
  return data.me;
}

const forWhom = (person: string | null) => ({ query: person === null ? {} : { for: person } });

export const useServices = (forPerson: string | null = null) =>
  useQuery({
    queryKey: ['services', forPerson],
    staleTime: 60_000,
    queryFn: () => call(api.catalogue.list, forWhom(forPerson)),
  });

/** All services, whomever they are for: for those who work on them. */
export const useAllServices = () =>
  useQuery({
    queryKey: ['services', 'of everyone'],
    staleTime: 60_000,
    queryFn: () => call(api.catalogue.list, { query: { of: 'everyone' } }),
  });

export const useCategories = () =>
  useQuery({ queryKey: ['categories'], staleTime: 300_000, queryFn: () => call(api.catalogue.categories) });

export const useService = (id: string, forPerson: string | null = null) =>
  useQuery({
    queryKey: ['service', id, forPerson],
    queryFn: () => call(api.catalogue.get, { params: { id }, ...forWhom(forPerson) }),
  });

export const useAskSearch = (q: string, forPerson: string | null = null) =>
  useQuery({
    queryKey: ['askSearch', q, forPerson],
    enabled: q.trim() !== '',
    placeholderData: keepPreviousData,
    staleTime: 60_000,
    queryFn: ({ signal }) =>
      call(api.catalogue.search, { query: { q, ...(forPerson && { for: forPerson }) }, signal }),
  });

export const useMyTickets = (which: 'open' | 'past') =>
  useInfiniteQuery({
    queryKey: ['mine', which],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) => call(api.tickets.mine, { query: { which, before: pageParam } }),
    getNextPageParam: ({ next }) => next ?? undefined,
  });

export const useAsks = () => useQuery({ queryKey: ['asks'], queryFn: () => call(api.approvals.mine) });

export const useTicket = (number: number, isWanted = true) =>
  useQuery({
    queryKey: ['ticket', number],
    enabled: isWanted,
    queryFn: () => call(api.tickets.get, { params: { number } }),
  });

export const useReckoning = (number: number, targetId: string, work: string) =>
  useQuery({
    queryKey: ['ticket', number, 'clock', work, targetId],
    queryFn: () => call(api.clocks.reckoning, { params: { number, targetId }, query: { work } }),
  });

export const useTeams = () =>
  useQuery({ queryKey: ['teams'], staleTime: 300_000, queryFn: () => call(api.people.teams) });

export const useSites = () =>
  useQuery({ queryKey: ['sites'], staleTime: 300_000, queryFn: () => call(api.teams.sites) });

export const usePeopleSearch = (q: string) =>
  useQuery({
    queryKey: ['people', q],
    enabled: q.trim().length > 1,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => call(api.people.search, { query: { q }, signal }),
  });

export const useFind = (q: string) =>
  useQuery({
    queryKey: ['find', q],
    enabled: q.trim() !== '',
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => call(api.tickets.find, { query: { q }, signal }),
  });

export const useNotifications = () =>
  useQuery({ queryKey: ['notifications'], queryFn: () => call(api.notifications.list) });

/** Renews a ticket and the lists that it stands in. */
export function useRenew(): (number?: number) => void {
  const client = useQueryClient();
  return (number) => {
    for (const key of ['mine', 'asks', 'notifications']) void client.invalidateQueries({ queryKey: [key] });
    if (number === undefined) void client.invalidateQueries({ queryKey: ['worklist'] });
    else {
      noteChange(number, { isOwn: true });
      void client.invalidateQueries({ queryKey: ['ticket', number] });
    }
  };
}
