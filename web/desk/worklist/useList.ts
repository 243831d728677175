import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { conditionOf } from './where';
import type { OwnWorklist } from '../../../contract/worklists';
import type { Condition } from '../../../core/conditions';
import {
  BOARD_FIELDS,
  GIVEN_LISTS,
  GROUPINGS,
  isGiven,
  ORDERS,
  VIEWS,
  type BoardField,
  type Grouping,
  type Order,
  type View,
  type WorklistDefinition,
} from '../../../core/worklist';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';

export const useOwnLists = () =>
  useQuery({ queryKey: ['ownLists'], staleTime: 30_000, queryFn: () => call(api.worklists.list) });

/** A worklist as it is looked at: what it is, and how it is seen just now. */
export type SeenList = {
  id: string;
  own: OwnWorklist | null;
  definition: WorklistDefinition;
  view: View;
  order: Order;
  groupBy: Grouping | null;
  boardBy: BoardField;
  /** What narrows it beside its own conditions. */
  where: Condition | null;
};

export type SeenChange = Partial<{
  view: View;
  order: Order;
  groupBy: Grouping | 'none';
  boardBy: BoardField;
  where: Condition | null;
}>;

function oneOf<T extends string>(choices: readonly T[], value: string | null, otherwise: T): T {
  return choices.find((choice) => choice === value) ?? otherwise;
}

const NAMES = { view: 'as', order: 'by', groupBy: 'group', boardBy: 'columns', where: 'where' } as const;

/**
 * The worklist of an address, and changing how it is seen. The way of seeing stands in the address, so that it can be
 * sent to a colleague; what the list itself says is left out of it.
 */
export function useList(id: string): {
  list: SeenList | null;
  isPending: boolean;
  error: unknown;
  see(change: SeenChange): void;
  search: string;
  retry(): void;
} {
  const [params, setParams] = useSearchParams();
  const query = useOwnLists();
  const own = query.data?.find((list) => list.id === id) ?? null;
  const definition = isGiven(id) ? GIVEN_LISTS[id] : (own?.definition ?? null);
  const see = (change: SeenChange): void =>
    setParams(
      (before) => {
        const after = new URLSearchParams(before);
        for (const [name, value] of Object.entries(change)) {
          const key = NAMES[name as keyof typeof NAMES];
          if (value === null) after.delete(key);
          else after.set(key, typeof value === 'string' ? value : JSON.stringify(value));
        }
        return after;
      },
      { replace: true },
    );
  const kept = new URLSearchParams(
    [...params].filter(([name]) => Object.values(NAMES).some((known) => known === name)),
  );
  const group = params.get(NAMES.groupBy);
  const list = definition && {
    ...{ id, own, definition },
    view: oneOf(VIEWS, params.get(NAMES.view), definition.seenAs),
    order: oneOf(ORDERS, params.get(NAMES.order), definition.order),
    groupBy: group === 'none' ? null : (GROUPINGS.find((each) => each === group) ?? definition.groupBy),
    boardBy: oneOf(BOARD_FIELDS, params.get(NAMES.boardBy), definition.board.by),
    where: conditionOf(params.get(NAMES.where)),
  };
  return {
    list,
    see,
    isPending: query.isPending && !isGiven(id),
    error: isGiven(id) ? null : query.error,
    retry: () => void query.refetch(),
    search: kept.size > 0 ? `?${kept}` : '',
  };
}
