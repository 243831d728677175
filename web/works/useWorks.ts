import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import type { BodyInputOf } from '../../contract/endpoint';
import type { api as contract } from '../../contract';
import { call } from '../api/call';
import { api } from '../api/endpoints';

export const useWork = (number: number) =>
  useQuery({
    queryKey: ['works', 'one', number],
    queryFn: () => call(api.works.get, { params: { number } }),
  });

export const useWorks = () => useQuery({ queryKey: ['works', 'list'], queryFn: () => call(api.works.list) });

export const useTemplates = () =>
  useQuery({ queryKey: ['works', 'templates'], queryFn: () => call(api.works.templates) });

export const useCalendar = (from: number, to: number) =>
  useQuery({
    queryKey: ['works', 'calendar', from, to],
    placeholderData: keepPreviousData,
    queryFn: () => call(api.works.calendar, { query: { from, to } }),
  });

/** What a change would reach and get in the way of, as it is being written. */
export const useReckoned = (asked: BodyInputOf<typeof contract.works.check> | null) =>
  useQuery({
    queryKey: ['works', 'reckoned', asked],
    enabled: asked !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => call(api.works.check, { body: asked!, signal }),
  });

/** Lets all that shows changes be asked anew. */
export function useRenewWorks(): () => Promise<void> {
  const client = useQueryClient();
  return async () => {
    await Promise.all(
      ['works', 'ticket', 'problems'].map((name) => client.invalidateQueries({ queryKey: [name] })),
    );
  };
}
