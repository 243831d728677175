import type { RequestHandler } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { bearerOf } from '../../core/programs';
import { ProblemError } from '../http/problems';
import { isStream } from '../http/streams';
import type { Listo } from '../listo';
import type { StreamSessions } from '../sessions/streams';
import { findProgram } from './key';

const MINUTE_MS = 60_000;
/** Wrong keys of one address in a minute; more are not looked up. */
const MOST_WRONG = 30;

/** A key that is refused by now belongs to nobody; that the database is away says nothing of it. */
function whereRefused(error: unknown): null {
  if (error instanceof ProblemError) return null;
  throw error;
}

/**
 * Recognises a program by its key. Its requests are counted by account, wherever they come from: each answer says what
 * is left in the RateLimit fields (draft-ietf-httpapi-ratelimit-headers, 8), and one too many gets 429 with Retry-After.
 */
export function recogniseProgram(listo: Listo, streams: StreamSessions): RequestHandler[] {
  const limitWrong = rateLimit({
    ...{ windowMs: MINUTE_MS, limit: MOST_WRONG, legacyHeaders: false, standardHeaders: false },
    skip: ({ headers }) => bearerOf(headers.authorization) === null,
    keyGenerator: ({ ip }) => ipKeyGenerator(ip ?? ''),
    skipSuccessfulRequests: true,
    requestWasSuccessful: (_request, response) => response.statusCode !== 401,
    handler: () => {
      throw new ProblemError('tooManyTries');
    },
  });
  const limitProgram = rateLimit({
    ...{ windowMs: MINUTE_MS, legacyHeaders: false, standardHeaders: 'draft-8', identifier: 'program' },
    skip: ({ viewer }) => !viewer?.byKey,
    limit: ({ viewer }) => viewer?.byKey?.perMinute ?? 0,
    keyGenerator: ({ viewer }) => viewer?.id ?? '',
    handler: () => {
      throw new ProblemError('tooManyCalls');
    },
  });
  const recognise: RequestHandler = async (request, response, next) => {
    const key = bearerOf(request.headers.authorization);
    if (key !== null) {
      const find = () => findProgram(listo, key, request.ip ?? '');
      request.viewer = await find();
      if (isStream(request)) streams.watch(response, request.viewer, () => find().catch(whereRefused));
    }
    next();
  };
  return [limitWrong, recognise, limitProgram];
}
