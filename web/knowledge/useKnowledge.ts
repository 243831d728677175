import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect } from 'react';
import type { KnowledgeDoor } from '../../contract/knowledge';
import { call } from '../api/call';
import { api } from '../api/endpoints';

/** What is typed is a question when nothing was added for so long. */
const SETTLED_MS = 1_500;
const LEAST_LETTERS = 3;

export const isQuestion = (q: string): boolean => q.trim().length >= LEAST_LETTERS;

/** Those that a service offers, or that a team wrote, and how many. */
type Among = { service?: string; team?: string; most?: number };

/** So many of those shown are told. */
const MOST_TOLD = 10;

/** Articles for the words typed so far. */
export const useArticleSearch = (q: string, door: KnowledgeDoor, { service, team, most }: Among = {}) =>
  useQuery({
    queryKey: ['articleSearch', q, service ?? null, team ?? null, most ?? null],
    enabled: isQuestion(q),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
    queryFn: ({ signal }) =>
      call(api.knowledge.search, {
        query: { q, door, ...(service && { service }), ...(team && { team }), ...(most && { most }) },
        signal,
      }),
  });

/** The same where an answer is looked for: what was asked is told once it is no longer being typed. */
export function useFoundArticles(q: string, door: KnowledgeDoor, among: Among = {}) {
  const { service, team } = among;
  const isWanted = isQuestion(q);
  const found = useArticleSearch(q, door, among);
  // That one team wrote nothing on it does not say that nothing is written.
  const ids =
    found.isPlaceholderData || team
      ? undefined
      : found.data
          ?.slice(0, MOST_TOLD)
          .map(({ id }) => id)
          .join();
  useEffect(() => {
    if (!isWanted || ids === undefined) return;
    const timer = setTimeout(
      () =>
        void call(api.knowledge.asked, {
          body: {
            ...{ words: q.slice(0, 500), door, serviceId: service ?? null },
            articleIds: ids === '' ? [] : ids.split(','),
          },
          key: nanoid(),
          // It is a count; that it fails must not disturb.
        }).catch(() => undefined),
      SETTLED_MS,
    );
    return () => clearTimeout(timer);
  }, [q, ids, door, service, isWanted]);
  return isWanted ? found.data : undefined;
}

export const useArticle = (id: string) =>
  useQuery({
    queryKey: ['article', id],
    queryFn: () => call(api.knowledge.read, { params: { id }, query: {} }),
  });
