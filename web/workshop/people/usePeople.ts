import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';

/** What narrows the list of people; blank: nothing. */
export type Narrowing = { q: string; siteId: string; teamId: string; state: string; role: string };

export const useKeptPeople = ({ q, siteId, teamId, state, role }: Narrowing) =>
  useInfiniteQuery({
    queryKey: ['organisation', 'people', { q, siteId, teamId, state, role }],
    initialPageParam: undefined as string | undefined,
    queryFn: ({ pageParam }) =>
      call(api.organisation.people, {
        query: {
          ...{ q, state, after: pageParam },
          ...{ siteId: siteId || undefined, teamId: teamId || undefined, role: role || undefined },
        },
      }),
    getNextPageParam: ({ after }) => after ?? undefined,
    placeholderData: (before) => before,
  });

export const keyOfPerson = (id: string) => ['organisation', 'person', id] as const;

export const useKeptPerson = (id: string) =>
  useQuery({
    queryKey: keyOfPerson(id),
    queryFn: () => call(api.organisation.person, { params: { id } }),
  });

/** People who may be the one that is being added. */
export const useAlike = (name: string, email: string) =>
  useQuery({
    queryKey: ['organisation', 'alike', name, email],
    enabled: name.trim().includes(' ') || email.includes('@'),
    queryFn: () => call(api.organisation.alike, { query: { name, email } }),
  });

/** Lets all that shows people be asked anew. */
export function useRenewPeople(): () => Promise<unknown> {
  const client = useQueryClient();
  return () =>
    Promise.all(
      ['organisation', 'people', 'teams', 'session'].map((name) =>
        client.invalidateQueries({ queryKey: [name] }),
      ),
    );
}
