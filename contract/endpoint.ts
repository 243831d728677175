import type * as z from 'zod';

/** One way to call the server: everything that the client, the server and the API description need to know. */
export type Endpoint<
  Params extends z.ZodType = z.ZodType,
  Query extends z.ZodType = z.ZodType,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
> = {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Below /api/v1, with :params. */
  path: string;
  summary: string;
  /** Callable without a session. */
  isOpen?: boolean;
  /** About the person who calls (their password, absence, bell …): a program is refused. */
  isForPeople?: boolean;
  /** Changes nothing, though it is no GET: open to programs that only read. */
  isReading?: boolean;
  params?: Params;
  query?: Query;
  body?: Body;
  answer: Answer;
};

/** @example endpoint({ method: 'get', path: '/teams', summary: 'All teams', answer: z.array(teamSchema) }) */
export function endpoint<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(
  definition: Endpoint<P, Q, B, A>,
): Endpoint<P, Q, B, A> {
  return definition;
}

/** The calls of a subject that is about the person who calls, none of them for a program. */
export function forPeople<Endpoints extends Record<string, Endpoint>>(endpoints: Endpoints): Endpoints {
  const flagged = Object.entries(endpoints).map(([name, each]) => [name, { ...each, isForPeople: true }]);
  return Object.fromEntries(flagged) as Endpoints;
}

/** What stands in the path of a call. */
export type ParamsOf<E> = E extends Endpoint<infer P, infer _Q, infer _B, infer _A> ? z.output<P> : never;
/** What stands in the query of a call. */
export type QueryOf<E> = E extends Endpoint<infer _P, infer Q, infer _B, infer _A> ? z.output<Q> : never;
/** The body of a call, as the server reads it. */
export type BodyOf<E> = E extends Endpoint<infer _P, infer _Q, infer B, infer _A> ? z.output<B> : never;
/** The body of a call, as it is sent. */
export type BodyInputOf<E> = E extends Endpoint<infer _P, infer _Q, infer B, infer _A> ? z.input<B> : never;
/** What a call is answered with. */
export type AnswerOf<E> = E extends Endpoint<infer _P, infer _Q, infer _B, infer A> ? z.output<A> : never;
