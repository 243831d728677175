import type { Request, Response, Router } from 'express';
import { createHash } from 'node:crypto';
import type * as z from 'zod';
import type { AnswerOf, BodyOf, Endpoint, ParamsOf, QueryOf } from '../../contract/endpoint';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { Actor } from './change';
import { findBadInput, findUnknown } from './inputs';
import { ProblemError } from './problems';

export type Call<E> = {
  params: ParamsOf<E>;
  query: QueryOf<E>;
  body: BodyOf<E>;
  viewer: SignedIn;
  actor: Actor;
  request: Request;
  response: Response;
};

declare module 'express-serve-static-core' {
  interface Request {
    viewer?: SignedIn;
    /** Who has signed in by a password and has yet to set a second factor: nobody to all but that. */
    entering?: SignedIn;
  }
}

const CODES: Record<string, string> = { too_big: 'tooLong', too_small: 'missing', invalid_type: 'malformed' };
/** So many fields are named in one answer. */
const MOST_NAMED = 20;
const OWN_CODES = new Set(['tooLong', 'tooShort', 'badCharacter', 'missing', 'malformed']);

/** What came in, as the contract has it; with what is unknown to it, it is refused: a misspelt field is not overlooked. */
function parse(schema: z.ZodType | undefined, value: unknown): unknown {
  const bad = findBadInput(value);
  if (bad) throw new ProblemError('fieldsNotValid', { fields: [bad] });
  const result = schema?.safeParse(value);
  if (!result || result.success) {
    const unknown = findUnknown(value, result ? result.data : {});
    if (unknown.length === 0) return result?.data;
    throw new ProblemError('fieldsNotValid', {
      fields: unknown.slice(0, MOST_NAMED).map((field) => ({ field: field.slice(0, 200), code: 'unknown' })),
    });
  }
  const fields = result.error.issues.slice(0, MOST_NAMED).map(({ path, code, message }) => ({
    field: path.map(String).join('.'),
    code: OWN_CODES.has(message) ? message : (CODES[code] ?? 'malformed'),
  }));
  throw new ProblemError('fieldsNotValid', { fields });
}

function readKey(request: Request): string | undefined {
  const key = request.get('Idempotency-Key');
  return key !== undefined && /^[\w-]{8,100}$/.test(key) ? key : undefined;
}

/** A key belongs to the request that it first came with: its method, its address and what it says. */
function toKey(idempotencyKey: string, { method, originalUrl, body }: Request): Partial<Actor> {
  const said = JSON.stringify([method, originalUrl, (body as unknown) ?? null]);
  return { idempotencyKey, request: createHash('sha256').update(said).digest('hex') };
}

/** Refuses a program what belongs to people alone, and changes to one that only reads. */
function requireForPrograms({ isForPeople, isReading, method }: Endpoint, mayChange: boolean): void {
  if (isForPeople) throw new ProblemError('forPeopleOnly');
  if (!mayChange && method !== 'get' && !isReading) throw new ProblemError('readsOnly');
}

/** Answers an endpoint: parses what comes in by its contract, asks for a session, sends what the handler answers. */
export function serve<E extends Endpoint>(
  router: Router,
  endpoint: E,
  handle: (call: Call<E>) => Promise<AnswerOf<E>>,
): void {
  router[endpoint.method](endpoint.path, async (request, response) => {
    const { viewer } = request;
    if (!viewer && !endpoint.isOpen) throw new ProblemError('notSignedIn');
    if (viewer?.byKey) requireForPrograms(endpoint, viewer.byKey.mayChange);
    const key = readKey(request);
    const answer = await handle({
      params: parse(endpoint.params, request.params),
      query: parse(endpoint.query, request.query),
      body: parse(endpoint.body, request.body ?? {}),
      viewer: viewer!,
      actor: {
        id: viewer?.id ?? '',
        ...(viewer?.byKey && { keyId: viewer.byKey.id }),
        ...(key !== undefined && toKey(key, request)),
      },
      request,
      response,
    } as Call<E>);
    if (!response.headersSent) response.json(answer);
  });
}

export const OK = { ok: true } as const;

/** Routes of a subject, given the application. */
export type Routes = (router: Router, listo: Listo) => void;
