import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { RecordFilter } from '../../../contract/records';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';

/** Entries of the record that a filter lets through, the newest first, page by page. */
export const useRecords = (filter: RecordFilter) =>
  useInfiniteQuery({
    queryKey: ['records', filter],
    initialPageParam: null as number | null,
    queryFn: ({ pageParam }) =>
      call(api.records.list, { query: { ...filter, ...(pageParam !== null && { before: pageParam }) } }),
    getNextPageParam: ({ before }) => before,
  });

/** The seals of the record, the newest first. */
export const useSeals = () =>
  useQuery({ queryKey: ['records', 'seals'], queryFn: () => call(api.records.seals) });
