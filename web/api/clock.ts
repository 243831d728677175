import { useEffect, useState } from 'react';

let offset = 0;

/** Takes over the server's time, whatever the browser's own clock says. */
export function setServerNow(serverNow: number): void {
  offset = serverNow - Date.now();
}

export function now(): number {
  return Date.now() + offset;
}

const LONGEST_WAIT = 2_000_000_000;

/**
 * The time, renewed every `every` ms and at the instant `next` (the next due instant on the page, say), so that what
 * falls due shows it at once.
 */
export function useNow(every: number, next?: number | null): number {
  const [at, setAt] = useState(now);
  useEffect(() => {
    const interval = setInterval(() => setAt(now()), every);
    return () => clearInterval(interval);
  }, [every]);
  useEffect(() => {
    if (next == null || next <= now()) return undefined;
    const timeout = setTimeout(() => setAt(now()), Math.min(next - now() + 5, LONGEST_WAIT));
    return () => clearTimeout(timeout);
  }, [next, at]);
  return at;
}
