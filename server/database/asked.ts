import { AsyncLocalStorage } from 'node:async_hooks';

/** A statement as it was asked, without its values, and how long it took in ms. */
export type Asked = { sql: string; ms: number };

const notes = new AsyncLocalStorage<Asked[]>();

/** Runs work whose statements are noted. */
export function noting<T>(work: () => T): { result: T; asked: Asked[] } {
  const asked: Asked[] = [];
  return { result: notes.run(asked, work), asked };
}

/** Notes a statement, where somebody wants to know. */
export async function note<T>(sql: string, run: () => Promise<T>): Promise<T> {
  const asked = notes.getStore();
  if (!asked) return run();
  const began = performance.now();
  try {
    return await run();
  } finally {
    asked.push({ sql, ms: performance.now() - began });
  }
}

/** The dearest of some statements, the same ones together. */
export function findDearest(asked: Asked[], most: number): (Asked & { times: number })[] {
  const bySql = new Map<string, Asked & { times: number }>();
  for (const { sql, ms } of asked) {
    const known = bySql.get(sql) ?? { sql, ms: 0, times: 0 };
    bySql.set(sql, { sql, ms: known.ms + ms, times: known.times + 1 });
  }
  return [...bySql.values()].sort((a, b) => b.ms - a.ms).slice(0, most);
}
