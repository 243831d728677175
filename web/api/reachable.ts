import { useSyncExternalStore } from 'react';

let isReachable = true;
const listeners = new Set<() => void>();

/** Notes whether the last call got through. */
export function setReachable(value: boolean): void {
  if (value === isReachable) return;
  isReachable = value;
  listeners.forEach((listener) => listener());
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function useReachable(): boolean {
  return useSyncExternalStore(subscribe, () => isReachable);
}
