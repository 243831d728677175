import fc from 'fast-check';
import { api } from '../../contract';
import type { Endpoint } from '../../contract/endpoint';
import { startTestListo, type Person, type TestListo } from '../testing/harness';
import { makeProgram } from '../testing/programs';
import { bodiesFor, NASTY_TEXTS } from './inputs';

/**
 * Every route with input that was made to break it: whatever comes, the answer is one that the contract knows, and never
 * that something went wrong. Bounded in requests; another seed, or more runs, by LISTO_FUZZ_SEED and LISTO_FUZZ_RUNS.
 */
const RUNS = Number(process.env.LISTO_FUZZ_RUNS ?? 12);
const SEED = Number(process.env.LISTO_FUZZ_SEED ?? 20_418);

let app: TestListo;
const people = new Map<string, Person>();
beforeAll(async () => {
  app = await startTestListo('fuzz');
  for (const id of ['tomas', 'bia', 'helder', 'sofia']) people.set(id, await app.as(id));
  const teams = [{ teamId: 'apps', role: 'lead' as const }];
  people.set('program', await makeProgram(app, { isAdministrator: true, teams }));
});
afterAll(() => app.end());

const endpoints = Object.entries(api).flatMap(([subject, all]) =>
  Object.entries(all as Record<string, Endpoint>)
    // Signing out ends the session that asks; setting up is refused once it is done.
    .filter(
      ([name]) =>
        !(
          subject === 'session' &&
          ['signOut', 'signIn', 'signInDemo', 'endOthers', 'end', 'password'].includes(name)
        ),
    )
    // Who has left can no longer ask.
    .filter(([name]) => !(subject === 'people' && name === 'leave'))
    .map(([name, endpoint]) => ({ name: `${subject}.${name}`, endpoint })),
);

const inAddress = (text: string): string => {
  try {
    return encodeURIComponent(text) || '%20';
  } catch {
    return '%ed%a0%80';
  }
};
const texts = fc.oneof(
  fc.constantFrom(...NASTY_TEXTS),
  fc.constantFrom('1', '20418', '1000001'),
  fc.string({ maxLength: 8 }),
);

test.each(endpoints)('$name', async ({ endpoint }) => {
  const names = [...endpoint.path.matchAll(/:(\w+)/g)].map(([, name]) => name!);
  const queried = fc.dictionary(
    fc.oneof(fc.constantFrom('q', 'where', 'id', 'limit', 'after', 'from', 'to'), texts),
    texts,
    { maxKeys: 2 },
  );
  const call = fc.record({
    who: fc.constantFrom('tomas', 'bia', 'helder', 'sofia', 'program'),
    params: fc.array(texts, { minLength: names.length, maxLength: names.length }),
    query: endpoint.method === 'get' ? queried : fc.constant({}),
    body: endpoint.body ? bodiesFor(endpoint.body) : fc.constant(undefined),
  });
  await fc.assert(
    fc.asyncProperty(call, async ({ who, params, query, body }) => {
      const path = names.reduce(
        (at, name, i) => at.replace(`:${name}`, inAddress(params[i]!)),
        endpoint.path,
      );
      const search = Object.entries(query)
        .map(([name, value]) => `${inAddress(name)}=${inAddress(String(value))}`)
        .join('&');
      const answer = await people
        .get(who)!
        .call(endpoint.method.toUpperCase(), search ? `${path}?${search}` : path, body);
      if (answer.status >= 500 && answer.status !== 502)
        throw new Error(`${answer.status} ${JSON.stringify(answer.body)}`);
      if (answer.status >= 400) expect((answer.body as { type?: string }).type).toMatch(/^\/problems\/\w+$/);
    }),
    { numRuns: RUNS, seed: SEED, endOnFailure: true },
  );
});

describe('outside the interface', () => {
  const get = (path: string, init: RequestInit = {}) => fetch(`${app.url}${path}`, init);
  test.each<[string, string, RequestInit, number]>([
    ['a broken escape', '/api/v1/tickets/%ff', {}, 400],
    ['what is not there', '/assets/x.js', {}, 404],
    ['a broken escape beside the interface', '/%ff', {}, 404],
    [
      'an unknown encoding',
      '/api/v1/session',
      {
        method: 'POST',
        headers: { 'Content-Encoding': 'nonsense', 'Content-Type': 'application/json' },
        body: '{}',
      },
      400,
    ],
    ['signed by nobody', '/chat/events', { method: 'POST', body: '' }, 401],
    ['no such stand-in', '/stand-in/rooms/bot/nothing', { method: 'POST', body: '' }, 401],
  ])('%s', async (_, path, init, status) => {
    const answer = await get(path, init);
    expect(answer.status).toBe(status);
    // Problem details (RFC 9457) everywhere but for the chat, which speaks its own way.
    const { type, error } = (await answer.json()) as { type?: string; error?: string };
    expect(type ?? error).toBeTruthy();
  });

  test('a query parameter twice is refused, and so is one that is unknown', async () => {
    const bia = people.get('bia')!;
    for (const query of ['q=a&q=b', 'q=a&unknown=1'])
      expect(await bia.call('GET', `/people?${query}`)).toMatchObject({ status: 422 });
  });
});
