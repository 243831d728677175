import { useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../api/call';
import { api } from '../api/endpoints';

export const useProblemList = () =>
  useQuery({ queryKey: ['problems', 'list'], queryFn: () => call(api.problems.list) });

export const useBreaking = (days: number) =>
  useQuery({
    queryKey: ['problems', 'breaking', days],
    queryFn: () => call(api.problems.recurring, { query: { days } }),
  });

export const useProblem = (number: number) =>
  useQuery({
    queryKey: ['problems', 'one', number],
    queryFn: () => call(api.problems.get, { params: { number } }),
  });

export const useCauseKinds = () =>
  useQuery({ queryKey: ['problems', 'causeKinds'], queryFn: () => call(api.problems.causeKinds) });

/** Lets all that shows problems be asked anew. */
export function useRenewProblems(): () => Promise<void> {
  const client = useQueryClient();
  return async () => {
    await Promise.all(['problems', 'ticket'].map((name) => client.invalidateQueries({ queryKey: [name] })));
  };
}
