import { useCallback, useState } from 'react';
import { useMe } from './queries';

const keyOf = (personId: string, place: string): string => `listo-draft:${personId}:${place}`;

/** Forgets what was being written somewhere: it has been sent. */
export function dropDraft(personId: string, place: string): void {
  localStorage.removeItem(keyOf(personId, place));
}

/**
 * What someone is writing, kept in the browser until it is sent: a reload, an ended session or a failed send lose
 * nothing. Drafts of one person are not shown to another on the same machine.
 */
export function useDraft<T>(place: string, initial: T): [T, (value: T) => void, () => void] {
  const key = keyOf(useMe().id, place);
  const [state, setState] = useState(() => ({ key, value: readDraft(key, initial) }));
  // Another place: its own draft.
  const value = state.key === key ? state.value : readDraft(key, initial);
  const setValue = useCallback(
    (next: T) => {
      setState({ key, value: next });
      localStorage.setItem(key, JSON.stringify(next));
    },
    [key],
  );
  const clear = useCallback(() => {
    localStorage.removeItem(key);
    setState({ key, value: initial });
    // `initial` is only what an empty draft looks like.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return [value, setValue, clear];
}

function readDraft<T>(key: string, initial: T): T {
  const kept = localStorage.getItem(key);
  if (kept === null) return initial;
  try {
    return JSON.parse(kept) as T;
  } catch {
    return initial;
  }
}
