import { useQuery, useQueryClient, keepPreviousData } from '@tanstack/react-query';
import { call } from '../../api/call';
import { useChanges } from '../../api/changes';
import { renewSoon } from '../../api/renew';
import { api } from '../../api/endpoints';
import type { SeenList } from './useList';

const askedOf = ({ where }: SeenList) => (where ? JSON.stringify(where) : undefined);

/** Figures of a list go with every change in it. */
function useRenewing(): void {
  const client = useQueryClient();
  useChanges(() => renewSoon(client, ['listFigures']));
}

/** How many pieces of work of a list have which value of some fields. */
export function useShares(list: SeenList, by: string[]) {
  useRenewing();
  return useQuery({
    queryKey: ['listFigures', list.id, list.own?.version ?? 0, askedOf(list), by],
    placeholderData: keepPreviousData,
    queryFn: () =>
      call(api.worklists.shares, { params: { id: list.id }, query: { where: askedOf(list), by: by.join() } }),
  });
}

/** What each person of a list carries. */
export function useLoad(list: SeenList) {
  useRenewing();
  return useQuery({
    queryKey: ['listFigures', list.id, list.own?.version ?? 0, askedOf(list), 'load'],
    placeholderData: keepPreviousData,
    queryFn: () => call(api.worklists.load, { params: { id: list.id }, query: { where: askedOf(list) } }),
  });
}
