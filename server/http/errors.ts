import type { ErrorRequestHandler } from 'express';
import { ConnectionError } from 'sequelize';
import { codeOf, isAway } from '../database/failures';
import type { Listo } from '../listo';
import { ProblemError, PROBLEMS, toProblem, type ProblemName } from './problems';

function isDatabaseAway(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  return (error as Error).name === 'SequelizeConnectionAcquireTimeoutError' || isAway(error);
}

/** An id of letters that no id has: nothing is called so. */
function isNoText(error: unknown): boolean {
  return codeOf(error) === 'ER_CANT_AGGREGATE_2COLLATIONS';
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
