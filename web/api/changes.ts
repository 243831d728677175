import { useEffect, useRef } from 'react';
import { gather } from './gather';

/** `own`: those that one changed oneself just now. The next changes wait for what it answers. */
type Listener = (numbers: number[], own: number[]) => unknown;

const listeners = new Set<Listener>();
const put = gather<number, boolean>(
  (changes) => {
    const numbers = [...changes.keys()];
    const own = numbers.filter((number) => changes.get(number));
    return Promise.all([...listeners].map((listener) => Promise.resolve(listener(numbers, own))));
  },
  (wasOwn = false, isOwn) => wasOwn || isOwn,
);

/** Says that something happened to a ticket; those that follow hear of many at once. */
export function noteChange(number: number, { isOwn = false } = {}): void {
  put(number, isOwn);
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
