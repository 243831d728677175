import { useCallback, useLayoutEffect, useRef } from 'react';

/** The same function each time, doing what it was last given: for parts that are drawn anew only when theirs changes. */
export function useStable<A extends unknown[], R>(act: (...given: A) => R): (...given: A) => R {
  const latest = useRef(act);
  useLayoutEffect(() => {
    latest.current = act;
  });
  return useCallback((...given: A) => latest.current(...given), []);
}
