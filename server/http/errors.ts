import type { ErrorRequestHandler } from 'express';
import { ConnectionError } from 'sequelize';
import type { Listo } from '../listo';
import { ProblemError, PROBLEMS, toProblem, type ProblemName } from './problems';

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ER_SOCKET_UNEXPECTED_CLOSE',
  'ER_CMD_CONNECTION_CLOSED',
  'ER_GET_CONNECTION_TIMEOUT',
]);

function isDatabaseAway(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const { original, code, name } = error as { original?: { code?: string }; code?: string; name?: string };
  return name === 'SequelizeConnectionAcquireTimeoutError' || AWAY.has(original?.code ?? code ?? '');
}

function nameOf(error: unknown): ProblemName {
  if (error instanceof ProblemError) return error.problem;
  if (isDatabaseAway(error)) return 'notReady';
  const { type } = error as { type?: string };
  if (type === 'entity.too.large') return 'bodyTooLarge';
  return type?.startsWith('entity.') || type === 'request.aborted' ? 'malformed' : 'unexpected';
}

/** Turns whatever went wrong into problem details; what nobody expected is logged whole. */
export function createErrorHandler(listo: Listo): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const name = nameOf(error);
    if (name === 'unexpected') listo.log.error({ err: error, reqId: request.id }, 'unexpected');
    const problem = toProblem(name, request.id as string, error instanceof ProblemError ? error.extra : {});
    response.status(PROBLEMS[name].status).type('application/problem+json').send(JSON.stringify(problem));
  };
}
