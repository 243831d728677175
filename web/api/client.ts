import { MutationCache, QueryCache, QueryClient } from '@tanstack/react-query';
import { ApiProblem } from './call';

const PASSING_TRIES = 60;
const WAIT_MS = 1_000;

function isPassing(error: unknown): boolean {
  return error instanceof ApiProblem && error.isPassing;
}

function noteEndedSession(error: unknown): void {
  if (error instanceof ApiProblem && error.code === 'notSignedIn')
    void queryClient.invalidateQueries({ queryKey: ['session'] });
}

/**
 * Reads and changes alike are tried again while the server or its database is away; a change carries its key, so
 * that it is made once. An ended session shows the sign-in in place.
 */
export const queryClient: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError: noteEndedSession }),
  mutationCache: new MutationCache({ onError: noteEndedSession }),
  defaultOptions: {
    queries: {
      networkMode: 'always',
      staleTime: 10_000,
      retry: (count, error) => isPassing(error) && count < PASSING_TRIES,
      retryDelay: WAIT_MS,
      refetchOnWindowFocus: true,
    },
    mutations: {
      networkMode: 'always',
      retry: (count, error) => isPassing(error) && count < PASSING_TRIES,
      retryDelay: WAIT_MS,
    },
  },
});
