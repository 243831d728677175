import type { ErrorRequestHandler } from 'express';
import { ConnectionError } from 'sequelize';
import type { Listo } from '../listo';
import { ProblemError, PROBLEMS, toProblem, type ProblemName } from './problems';

/** The database is away, or cannot take anything now: the same may go in a moment. */
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ETIMEDOUT',
  // A node of a cluster that has not joined it.
  'ER_UNKNOWN_COM_ERROR',
  // Waited for a row, or met another, longer than one waits.
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_LOCK_DEADLOCK',
  'ER_CHECKREAD',
  // No room on its disk.
  'ER_DISK_FULL',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_OPTION_PREVENTS_STATEMENT',
  'ER_CON_COUNT_ERROR',
  'ER_SERVER_SHUTDOWN',
  'ER_QUERY_INTERRUPTED',
  'ER_SOCKET_UNEXPECTED_CLOSE',
  'ER_CMD_CONNECTION_CLOSED',
  'ER_GET_CONNECTION_TIMEOUT',
]);

function isDatabaseAway(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const { original, code, name } = error as { original?: { code?: string }; code?: string; name?: string };
  return name === 'SequelizeConnectionAcquireTimeoutError' || AWAY.has(original?.code ?? code ?? '');
}

/** An id of letters that no id has: nothing is called so. */
function isNoText(error: unknown): boolean {
  const { original, code } = error as { original?: { code?: string }; code?: string };
  return (original?.code ?? code) === 'ER_CANT_AGGREGATE_2COLLATIONS';
}

function nameOf(error: unknown): ProblemName {
  if (error instanceof ProblemError) return error.problem;
  if (isDatabaseAway(error)) return 'notReady';
  if (isNoText(error)) return 'notFound';
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large' || status === 413) return 'bodyTooLarge';
  if (status === 404) return 'notFound';
  // What Express and its parsers cannot read: a broken escape, an unknown encoding, half a body.
  return type?.startsWith('entity.') || (status !== undefined && status >= 400 && status < 500)
    ? 'malformed'
    : 'unexpected';
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
