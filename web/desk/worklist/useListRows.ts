import { useInfiniteQuery, useQueryClient, type InfiniteData } from '@tanstack/react-query';
import { useMemo, useRef, useState } from 'react';
import type { AnswerOf } from '../../../contract/endpoint';
import type { ListRow } from '../../../contract/worklists';
import type { Condition } from '../../../core/conditions';
import { patchPages, renewInPlace } from '../../../core/worklist';
import { call } from '../../api/call';
import { useChanges } from '../../api/changes';
import { api } from '../../api/endpoints';
import type { SeenList } from './useList';

type Page = AnswerOf<typeof api.worklists.page>;
type Data = InfiniteData<Page, string | undefined>;

const FIRST = 60;
const NEXT = 200;
/** More at once, and the whole list is read anew. */
const MOST_AT_ONCE = 50;

/** A list's pages after some rows came or went: its count goes with them. */
function toData(data: Data, pages: Page[]): Data {
  const count = (all: Page[]): number => all.reduce((sum, { rows }) => sum + rows.length, 0);
  const [first] = pages;
  const more = count(pages) - count(data.pages);
  const total = first && { ...first.total, count: Math.max(0, first.total.count + more) };
  return { ...data, pages: first ? [{ ...first, total: total! }, ...pages.slice(1)] : pages };
}

/**
 * The rows of a worklist, page by page, kept live: a changed ticket's rows are read anew and put where they belong.
 * While `holds` answers yes (someone points at the list) nothing moves; `waiting` are then the tickets whose rows would.
 */
export function useListRows(
  list: SeenList,
  { where = list.where, holds = () => false }: { where?: Condition | null; holds?: () => boolean } = {},
) {
  const client = useQueryClient();
  const asked = {
    order: list.order,
    groupBy: list.groupBy ?? 'none',
    where: where ? JSON.stringify(where) : undefined,
  };
  const queryKey = ['worklist', list.id, list.own?.version ?? 0, asked] as const;
  const query = useInfiniteQuery({
    queryKey,
    initialPageParam: undefined as string | undefined,
    refetchOnWindowFocus: false,
    staleTime: 60_000,
    queryFn: ({ pageParam, signal }) =>
      call(api.worklists.page, {
        params: { id: list.id },
        query: { ...asked, after: pageParam, limit: pageParam === undefined ? FIRST : NEXT },
        signal,
      }),
    getNextPageParam: ({ next }) => next ?? undefined,
  });
  const [waiting, setWaiting] = useState<number[]>([]);
  const pending = useRef(new Set<number>());

  async function look(numbers: number[], isHeld: boolean): Promise<void> {
    if (!client.getQueryData<Data>(queryKey)) return;
    if (numbers.length > MOST_AT_ONCE) return client.invalidateQueries({ queryKey });
    const rows = await call(api.worklists.rows, {
      params: { id: list.id },
      query: { ...asked, numbers: numbers.join() },
    });
    client.setQueryData<Data>(queryKey, (data) => {
      if (!data) return data;
      if (!isHeld)
        return toData(data, patchPages(data.pages, { numbers, rows, order: list.order }) as Page[]);
      const { pages, later } = renewInPlace(data.pages, { numbers, rows });
      for (const number of later) pending.current.add(number);
      return { ...data, pages: pages as Page[] };
    });
    setWaiting([...pending.current]);
  }

  useChanges((numbers, own) => {
    const others = numbers.filter((number) => !own.includes(number));
    // What one does oneself is wanted to be seen at once.
    const looks = [[own, false] as const, [others, holds()] as const].filter(([looked]) => looked.length > 0);
    return Promise.all(
      looks.map(([looked, isHeld]) =>
        look(looked, isHeld).catch(() => client.invalidateQueries({ queryKey })),
      ),
    );
  });
  /** Lets what was held back come to its place. */
  function settle(): void {
    if (pending.current.size === 0) return;
    const numbers = [...pending.current];
    pending.current.clear();
    setWaiting([]);
    void look(numbers, false).catch(() => client.invalidateQueries({ queryKey }));
  }
  const pages = query.data?.pages;
  const rows = useMemo((): ListRow[] => pages?.flatMap((page) => page.rows) ?? [], [pages]);
  return { query, rows, total: pages?.[0]?.total, waiting, settle };
}
