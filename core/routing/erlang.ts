/**
 * Waiting in a line, after A. K. Erlang (C: all wait; A: those whose patience ends leave). Load is in erlangs: arrivals in
 * a mean handling time.
 */

/** Erlang B: the share that finds all of `servers` busy where nobody waits, by its usual recursion. */
export function erlangB(servers: number, load: number): number {
  let blocked = 1;
  for (let i = 1; i <= servers; i++) blocked = (load * blocked) / (i + load * blocked);
  return blocked;
}

/** Erlang C: the share that has to wait; 1 where more comes than can be handled. */
export function erlangC(servers: number, load: number): number {
  if (load >= servers) return 1;
  const blocked = erlangB(servers, load);
  const use = load / servers;
  return blocked / (1 - use * (1 - blocked));
}

/** The mean wait of all who come, in the unit of the handling time. */
export function meanWait(servers: number, load: number, handling: number): number {
  return load >= servers ? Infinity : (erlangC(servers, load) * handling) / (servers - load);
}

/**
 * Erlang A: the share that waits and the share that leaves, where each would wait for a time of mean `patience` (of the
 * unit of `handling`), exponentially spread.
 */
export function erlangA(
  servers: number,
  load: number,
  handling: number,
  patience: number,
): { waits: number; leaves: number } {
  const rate = load / handling;
  const theta = 1 / patience;
  // The birth and death process from its emptiest state on, each state relative to that where all are busy.
  let below = 0;
  let state = 1;
  for (let i = servers; i > 0; i--) {
    state *= i / load;
    below += state;
    if (state < 1e-15) break;
  }
  let waiting = 0;
  let inLine = 0;
  state = 1;
  for (let k = 0; k < 100_000; k++) {
    waiting += state;
    inLine += k * state;
    state *= rate / (servers / handling + (k + 1) * theta);
    if (state < 1e-15 * waiting) break;
  }
  const all = below + waiting;
  return { waits: waiting / all, leaves: (theta * (inLine / all)) / rate };
}
