import type { RequestHandler } from 'express';
import { findDearest, noting } from '../database/asked';
import type { Listo } from '../listo';
import { isStream } from './streams';

const DEAREST = 5;
const LONGEST_SQL = 600;

/** Logs a request that took long with the statements that took most of it; of these no value is logged. */
export function logSlow({ config: { LISTO_SLOW_MS: slowMs }, log }: Listo): RequestHandler {
  return (request, response, next) => {
    if (slowMs === 0 || isStream(request)) {
      next();
      return;
    }
    const began = performance.now();
    const { asked } = noting(() => next());
    response.once('close', () => {
      const ms = Math.round(performance.now() - began);
      if (ms < slowMs) return;
      const statements = findDearest(asked, DEAREST).map(({ sql, ms: took, times }) => ({
        ...{ sql: sql.replace(/\s+/g, ' ').slice(0, LONGEST_SQL), times },
        ms: Math.round(took),
      }));
      log.warn({ reqId: request.id, method: request.method, path: request.path, ms, statements }, 'slow');
    });
  };
}
