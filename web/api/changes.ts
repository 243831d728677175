import { useEffect, useRef } from 'react';

/** `own`: those that one changed oneself just now. */
type Listener = (numbers: number[], own: number[]) => void;

const listeners = new Set<Listener>();
const GATHER_MS = 120;
let gathered = new Map<number, boolean>();
let timer: ReturnType<typeof setTimeout> | null = null;

function pass(): void {
  const changes = [...gathered];
  gathered = new Map();
  timer = null;
  const numbers = changes.map(([number]) => number);
  const own = changes.filter(([, isOwn]) => isOwn).map(([number]) => number);
  for (const listener of listeners) listener(numbers, own);
}

/** Says that something happened to a ticket; those that follow hear of many at once. */
export function noteChange(number: number, { isOwn = false } = {}): void {
  gathered.set(number, isOwn || (gathered.get(number) ?? false));
  timer ??= setTimeout(pass, GATHER_MS);
}

/** Hears which tickets changed, some moments' changes together. */
export function useChanges(listener: Listener): void {
  const current = useRef(listener);
  useEffect(() => {
    current.current = listener;
  });
  useEffect(() => {
    const hear: Listener = (numbers, own) => current.current(numbers, own);
    listeners.add(hear);
    return () => void listeners.delete(hear);
  }, []);
}
