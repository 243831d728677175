import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { EditedDefinition, EditedService } from '../../../contract/services';
import { ApiProblem, call } from '../../api/call';
import { api } from '../../api/endpoints';

const PAUSE_MS = 700;

export type Keeping = { state: 'kept' | 'saving' } | { state: 'failed'; error: unknown };

export const useEdited = (id: string) =>
  useQuery({
    queryKey: ['edited', id],
    staleTime: Infinity,
    gcTime: 0,
    queryFn: () => call(api.services.get, { params: { id } }),
  });

/** A service being written: kept as one types, judged by the server's own rules. */
export function useWriting(service: EditedService) {
  const client = useQueryClient();
  const { id } = service;
  const [definition, setDefinition] = useState(service.definition);
  const [judged, setJudged] = useState({ audience: service.audience, problems: service.problems });
  const [keeping, setKeeping] = useState<Keeping>({ state: 'kept' });
  const [draftVersion, setDraftVersion] = useState(service.draftVersion);
  const wanted = useRef<EditedDefinition | null>(null);
  const version = useRef(service.draftVersion);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const running = useRef<Promise<void> | null>(null);

  /** Asked after an await: more may have been typed meanwhile. */
  const isWaiting = (): boolean => wanted.current !== null;

  const save = useCallback(async (): Promise<void> => {
    const next = wanted.current;
    if (!next) return;
    wanted.current = null;
    try {
      const saved = await call(api.services.save, {
        params: { id },
        body: { draftVersion: version.current, definition: next },
      });
      version.current = saved.draftVersion;
      setDraftVersion(saved.draftVersion);
      setJudged(saved);
      if (!isWaiting()) setKeeping({ state: 'kept' });
    } catch (error) {
      // What could not be kept is tried again with the next word, unless someone else was quicker.
      wanted.current ??= next;
      setKeeping({ state: 'failed', error });
    }
  }, [id]);

  /** Keeps what is not kept yet. @returns the draft's version then */
  const settle = useCallback(async (): Promise<number> => {
    if (timer.current) clearTimeout(timer.current);
    await running.current;
    running.current = save();
    await running.current;
    return version.current;
  }, [save]);

  const change = useCallback(
    (part: Partial<EditedDefinition>): void => {
      setDefinition((before) => {
        const next = { ...before, ...part };
        wanted.current = next;
        return next;
      });
      setKeeping({ state: 'saving' });
      if (timer.current) clearTimeout(timer.current);
      timer.current = setTimeout(() => void settle(), PAUSE_MS);
    },
    [settle],
  );

  useEffect(
    () => () => {
      // Whoever leaves the page loses nothing either.
      void settle().then(() => client.invalidateQueries({ queryKey: ['serviceLines'] }));
    },
    [settle, client],
  );

  const isStale =
    keeping.state === 'failed' && keeping.error instanceof ApiProblem && keeping.error.code === 'stale';
  return { definition, change, settle, keeping, isStale, draftVersion, ...judged };
}

export type Writing = ReturnType<typeof useWriting>;
/** What each part of the page works on. */
export type PartProps = {
  definition: EditedDefinition;
  isFixed: boolean;
  change(part: Partial<EditedDefinition>): void;
};
