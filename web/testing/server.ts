import { api } from '../../contract';
import type { AnswerOf, BodyOf, Endpoint, ParamsOf, QueryOf } from '../../contract/endpoint';
import type { Problem } from '../../contract/problem';

/** A call as the page made it. */
export type Received<E = Endpoint> = {
  params: ParamsOf<E>;
  query: Partial<QueryOf<E>>;
  body: BodyOf<E>;
  key: string | null;
};
type Answer<E> =
  AnswerOf<E> | Refusal | ((received: Received<E>) => AnswerOf<E> | Refusal | Promise<AnswerOf<E> | Refusal>);

/** What the server refuses with; null: it does not answer at all. */
class Refusal {
  constructor(readonly problem: Problem | null) {}
}

/** @example refuse(409, 'stale', { fields: [] }) */
export const refuse = (status: number, code: string, more: Partial<Problem> = {}): Refusal =>
  new Refusal({
    ...{ type: `/problems/${code}`, title: code, status, detail: `The way out of ${code}`, requestId: 'r1' },
    ...more,
  });
/** Nothing comes back: the line is down. */
export const AWAY = new Refusal(null);

type Known = { endpoint: Endpoint; pattern: RegExp; names: string[] };
const KNOWN: Known[] = Object.values(api)
  .flatMap((group) => Object.values(group) as Endpoint[])
  .map((endpoint) => {
    const names = [...endpoint.path.matchAll(/:(\w+)/g)].map(([, name]) => name!);
    return {
      endpoint,
      names,
      pattern: new RegExp(`^/api/v1${endpoint.path.replace(/:\w+/g, '([^/]+)')}$`),
    };
  });

function find(method: string, path: string): Known {
  const fitting = KNOWN.filter(
    ({ endpoint, pattern }) => endpoint.method.toUpperCase() === method && pattern.test(path),
  );
  // An address written whole goes before one with a part to fill in.
  const found = fitting.sort((a, b) => a.names.length - b.names.length)[0];
  if (!found) throw new Error(`no contract has ${method} ${path}`);
  return found;
}

const json = (status: number, body: unknown): Response =>
  ({
    ok: status < 300,
    status,
    headers: { get: (name: string) => (name === 'Content-Type' ? 'application/json' : null) },
    json: () => Promise.resolve(JSON.parse(JSON.stringify(body))),
  }) as unknown as Response;

/**
 * Answers what a page asks, in place of the server. What is sent and what is answered must fit the contract, so that no
 * test rests on an answer that the server never gives. A call that no answer was given for fails the test.
 */
export class StandInServer {
  private readonly answers = new Map<Endpoint, Answer<never>>();
  private readonly received = new Map<Endpoint, Received[]>();
  /** What was asked and not foreseen, and what fits no contract. */
  readonly faults: string[] = [];

  /** From now on this call is answered so. */
  on<E extends Endpoint>(endpoint: E, answer: Answer<E>): this {
    this.answers.set(endpoint, answer as Answer<never>);
    return this;
  }

  /** The calls so far, first to last. */
  callsOf<E extends Endpoint>(endpoint: E): Received<E>[] {
    return this.received.get(endpoint) ?? [];
  }

  readonly fetch = async (input: unknown, init: RequestInit = {}): Promise<Response> => {
    const url = new URL(String(input), 'http://listo.example');
    const { endpoint, pattern, names } = find(init.method ?? 'GET', url.pathname);
    const values = pattern.exec(url.pathname)!.slice(1).map(decodeURIComponent);
    const sent: unknown = typeof init.body === 'string' ? JSON.parse(init.body) : init.body;
    const received: Received = {
      params: Object.fromEntries(names.map((name, i) => [name, values[i]])),
      query: Object.fromEntries(url.searchParams),
      body: sent,
      key:
        new Map(Object.entries((init.headers ?? {}) as Record<string, string>)).get('Idempotency-Key') ??
        null,
    };
    this.received.set(endpoint, [...(this.received.get(endpoint) ?? []), received]);
    if (endpoint.body && typeof init.body === 'string')
      this.check(endpoint, 'sent', endpoint.body.safeParse(sent));
    const given = this.answers.get(endpoint);
    if (given === undefined) return this.fault(`${endpoint.method} ${endpoint.path} was not foreseen`);
    const answer: unknown =
      typeof given === 'function' ? await (given as (call: Received) => unknown)(received) : given;
    if (answer === AWAY) throw new TypeError('Failed to fetch');
    if (answer instanceof Refusal) return json(answer.problem!.status, answer.problem);
    this.check(endpoint, 'answered', endpoint.answer.safeParse(answer));
    return json(200, answer);
  };

  private check(endpoint: Endpoint, what: string, { error }: { error?: Error }): void {
    if (error) this.fault(`${endpoint.method} ${endpoint.path}, what was ${what}: ${error.message}`);
  }

  private fault(text: string): never {
    this.faults.push(text);
    throw new Error(text);
  }
}

/** A stand-in for the tests of a file: a new one for each test, which fails where something was not foreseen. */
export function standIn(): () => StandInServer {
  let server: StandInServer;
  const real = globalThis.fetch;
  beforeEach(() => {
    server = new StandInServer();
    // Most pages ask what does not work; mostly everything does.
    server.on(api.notices.mine, []);
    globalThis.fetch = server.fetch;
    localStorage.clear();
  });
  afterEach(() => {
    globalThis.fetch = real;
    expect(server.faults).toEqual([]);
  });
  return () => server;
}
