import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import type { AskedChart, Board } from '../../../contract/measures';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';

/** So often figures are read anew while they are looked at (ms). */
const RENEWED_MS = 30_000;

/** The boards that there are to look at. */
export const useBoards = () =>
  useQuery({ queryKey: ['boards'], queryFn: () => call(api.measures.boards, {}) });

/** A board with its charts. */
export const useBoard = (id: string) =>
  useQuery({ queryKey: ['board', id], queryFn: () => call(api.measures.board, { params: { id } }) });

/** The figures of a chart; while others are fetched, those before stay. */
export const useChart = (asked: AskedChart, isOn = true) =>
  useQuery({
    queryKey: ['chart', asked],
    queryFn: () => call(api.measures.chart, { body: asked }),
    enabled: isOn,
    placeholderData: keepPreviousData,
    refetchInterval: RENEWED_MS,
  });

/** Takes a board as it is now known, and has the list of them read anew. */
export function useBoardChanged(): (board: Board | null) => Promise<void> {
  const client = useQueryClient();
  return useCallback(
    async (board) => {
      if (board) client.setQueryData(['board', board.id], board);
      await client.invalidateQueries({ queryKey: ['boards'] });
    },
    [client],
  );
}
