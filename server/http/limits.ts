import type { RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { Listo } from '../listo';
import { ProblemError } from './problems';

/** What takes the server longer than reading a page does: searches, trials, tables, previews, threads of their own. */
const COSTLY =
  /^\/(?:search|find|people\b|articles\/search|assistant|reported|imports|replays|files$|targets\/[^/]+\/effect|targets\/preview|calendars\/[^/]+\/(?:effect|read|file)|teams\/[^/]+\/order\/trial|worklists\/[^/]+\/(?:export|shares|bulk)|compliance)/;

/** Bounds how often one person (or, before the sign-in, one address) may ask for what costs much. */
export function limitCostly({ config }: Listo): RequestHandler {
  return rateLimit({
    ...{ windowMs: 60_000, limit: config.LISTO_COSTLY_LIMIT, legacyHeaders: false },
    ...{ standardHeaders: 'draft-8', identifier: 'costly' },
    skip: ({ path }) => !COSTLY.test(path),
    keyGenerator: ({ viewer, ip }) => viewer?.id ?? `address ${ip ?? ''}`,
    validate: { keyGeneratorIpFallback: false },
    handler: () => {
      throw new ProblemError('tooManyCalls');
    },
  });
}

/** Of one person's heavy jobs one runs at a time, and so many wait. */
const MOST_WAITING = 2;
const going = new Map<string, { count: number; last: Promise<unknown> }>();

/**
 * Runs something large for a person, after what of theirs is large already; more than a few are refused.
 * @throws ProblemError busy
 */
export async function inTurn<T>(personId: string, work: () => Promise<T>): Promise<T> {
  const before = going.get(personId) ?? { count: 0, last: Promise.resolve() };
  if (before.count > MOST_WAITING) throw new ProblemError('busy');
  const result = before.last.catch(() => undefined).then(work);
  const entry = { count: before.count + 1, last: result };
  going.set(personId, entry);
  try {
    return await result;
  } finally {
    const now = going.get(personId)!;
    if (now.count === 1) going.delete(personId);
    else going.set(personId, { ...now, count: now.count - 1 });
  }
}
