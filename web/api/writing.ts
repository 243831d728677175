import { useEffect, useState } from 'react';
import type { WritingEvent } from '../../contract/live';
import { call } from './call';
import { api } from './endpoints';

/** Said again at least this often while someone writes; forgotten a while after the last time. */
const SAY_MS = 2_500;
const KEPT_MS = 6_000;

const listeners = new Set<(event: WritingEvent) => void>();

/** The live stream says that someone is writing. */
export const hearWriting = (event: WritingEvent): void => listeners.forEach((listener) => listener(event));

/** The names of those who are writing on a ticket now. */
export function useWriting(number: number): string[] {
  const [writers, setWriters] = useState<{ personId: string; name: string; until: number }[]>([]);
  useEffect(() => {
    const hear = (event: WritingEvent): void => {
      if (event.number !== number) return;
      const { personId, name } = event;
      const others = (list: typeof writers) => list.filter((each) => each.personId !== personId);
      setWriters((list) => [...others(list), { personId, name, until: Date.now() + KEPT_MS }]);
    };
    listeners.add(hear);
    return () => {
      listeners.delete(hear);
      setWriters([]);
    };
  }, [number]);
  useEffect(() => {
    if (writers.length === 0) return;
    const wait = Math.max(0, Math.min(...writers.map(({ until }) => until)) - Date.now());
    const timer = setTimeout(
      () => setWriters((list) => list.filter(({ until }) => until > Date.now())),
      wait + 10,
    );
    return () => clearTimeout(timer);
  }, [writers]);
  return writers.map(({ name }) => name);
}

let saidAt = 0;

/** Lets the others on a ticket see that one is writing; what fails here is of no weight. */
export function sayWriting(number: number, readBy: 'requester' | 'team'): void {
  if (Date.now() - saidAt < SAY_MS) return;
  saidAt = Date.now();
  void call(api.words.writing, { params: { number }, body: { readBy } }).catch(() => undefined);
}
