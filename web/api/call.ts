import type { AnswerOf, BodyInputOf, Endpoint, ParamsOf, QueryOf } from '../../contract/endpoint';
import type { Problem } from '../../contract/problem';
import { setReachable } from './reachable';

/** What a call failed with: the server's problem, or `offline` where none came. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem | null) {
    super(problem?.title ?? 'offline');
    this.name = 'ApiProblem';
  }

  /** The slug of the problem's type. */
  get code(): string {
    return this.problem?.type.split('/').at(-1) ?? 'offline';
  }

  /** Whether it may work by itself in a moment. */
  get isPassing(): boolean {
    return this.problem === null || this.problem.status === 503;
  }
}

type Given<T> = unknown extends T ? undefined : T;
export type CallInput<E> = {
  params?: Given<ParamsOf<E>>;
  query?: Partial<Record<keyof QueryOf<E> & string, string | number | undefined>>;
  body?: BodyInputOf<E>;
  /** Makes a repeated POST one. */
  key?: string;
  signal?: AbortSignal;
};

function addressOf(path: string, params: object | undefined, query: object | undefined): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String((params as Record<string, unknown>)[name])),
  );
  const given = Object.entries(query ?? {}).filter(([, value]) => value !== undefined) as [string, string][];
  const search = new URLSearchParams(given).toString();
  return `/api/v1${filled}${search ? `?${search}` : ''}`;
}

async function readProblem(response: Response): Promise<ApiProblem> {
  const isProblem = response.headers.get('Content-Type')?.includes('json');
  return new ApiProblem(isProblem ? ((await response.json()) as Problem) : null);
}

/** Calls the server by a contract's endpoint. @throws ApiProblem */
export async function call<E extends Endpoint>(endpoint: E, input: CallInput<E> = {}): Promise<AnswerOf<E>> {
  const { params, query, body, key, signal } = input;
  const isForm = body instanceof FormData;
  let response: Response;
  try {
    response = await fetch(addressOf(endpoint.path, params as object | undefined, query), {
      method: endpoint.method.toUpperCase(),
      headers: {
        ...(body !== undefined && !isForm && { 'Content-Type': 'application/json' }),
        ...(key !== undefined && { 'Idempotency-Key': key }),
      },
      ...(body !== undefined && { body: isForm ? body : JSON.stringify(body) }),
      ...(signal && { signal }),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    setReachable(false);
    throw new ApiProblem(null);
  }
  if (response.ok) {
    setReachable(true);
    return (await response.json()) as AnswerOf<E>;
  }
  const problem = await readProblem(response);
  setReachable(!problem.isPassing);
  throw problem;
}
