import { api } from '../../contract';
import type { Endpoint } from '../../contract/endpoint';
import { DEFAULT_WEIGHTS } from '../../core/worklist';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/**
 * A ticket in confidence with a mark in all its texts, and every route of the interface: whoever may not read it finds
 * no mark, and no number that moves because of it.
 */
const MARK = 'zqxconfidence';
const OTHERS = ['joel', 'rui', 'helder', 'marta'];

let app: TestListo;
let lena: Person;
let sofia: Person;
beforeAll(async () => {
  app = await startTestListo('confidential', { env: { LISTO_MAIL_DOMAIN: 'listo.example' } });
  [lena, sofia] = [await app.as('lena'), await app.as('sofia')];
});
afterAll(() => app.end());

const NOTES_ALL = {
  ...{ name: { en: 'All', pt: 'Todos' }, trigger: { on: 'received' }, provided: { all: [] }, isLast: false },
  effects: [{ do: 'note', words: { en: 'Seen', pt: 'Visto' } }],
};
type Call = { name: string; method: string; path: string; body?: object };

const VALUES: Record<string, string> = {
  ...{ id: 'resolution', number: '1', teamId: 'people', listId: 'everything', targetId: 'resolution' },
};
const IDS: [RegExp, string][] = [
  [/^\/worklists/, 'everything'],
  [/^\/teams/, 'people'],
  [/^\/services/, 'letter'],
  [/^\/calendars/, 'office'],
  [/^\/people/, 'lena'],
  [/^\/chat\/rooms/, 'onboard'],
];

/** Every route that reads, and those that reckon without writing. */
async function listCalls(): Promise<Call[]> {
  const all = Object.entries(api).flatMap(([subject, endpoints]) =>
    Object.entries(endpoints as Record<string, Endpoint>).map(([name, endpoint]) => ({
      name: `${subject}.${name}`,
      endpoint,
    })),
  );
  const reads = all
    .filter(({ endpoint }) => endpoint.method === 'get')
    .map(({ name, endpoint: { path } }) => {
      const id = IDS.find(([pattern]) => pattern.test(path))?.[1] ?? VALUES.id!;
      return {
        name,
        method: 'GET',
        path: path.replace(/:(\w+)/g, (_, param: string) => (param === 'id' ? id : (VALUES[param] ?? '1'))),
      };
    });
  const [target] = await app.listo.db.tables.targets.find({ id: 'resolution' });
  const { definition } = target!;
  const searches = [
    '/find?q=',
    '/search?q=',
    '/people?q=',
    '/reported?serviceId=letter&title=',
    '/articles/search?q=',
  ];
  return [
    ...reads,
    ...searches.map((path) => ({ name: `GET ${path}`, method: 'GET', path: `${path}${MARK}` })),
    {
      name: 'everything by team',
      method: 'GET',
      path: '/worklists/everything/shares?by=teamId,serviceId,assigneeId',
    },
    { name: 'the load of everything', method: 'GET', path: '/worklists/everything/load' },
    {
      name: 'a target’s effect',
      method: 'POST',
      path: '/targets/resolution/effect',
      body: { definition: { ...definition, limits: [{ duration: 'PT1M' }] } },
    },
    {
      name: 'a trial of the order',
      method: 'POST',
      path: '/teams/people/order/trial',
      body: { weights: { ...DEFAULT_WEIGHTS, waiting: 3 } },
    },
    ...[null, 'people'].map((teamId) => ({
      name: `a rule tried for ${teamId ?? 'everyone'}`,
      method: 'POST',
      path: '/rules/trials',
      body: { id: null, days: 30, rule: { ...NOTES_ALL, teamId } },
    })),
    { name: 'another order of rules', method: 'POST', path: '/rules-order/effects', body: { ids: [] } },
    { name: 'the export', method: 'GET', path: '/worklists/everything/export' },
  ];
}

async function readAll(person: Person, calls: Call[]): Promise<Map<string, string>> {
  const answers = new Map<string, string>();
  for (const { name, method, path, body } of calls) {
    const { status, body: answer } = await person.call(method, path, body);
    answers.set(name, `${status} ${typeof answer === 'string' ? answer : JSON.stringify(answer)}`);
  }
  return answers;
}

/** What differs by the moment alone: what was asked, and when. */
const still = (text: string): string =>
  text.replace(/"(?:requestId|now|seenAt|at|since)":("[^"]*"|\d+)/g, '');

test('whoever may not read it learns nothing of it', async () => {
  const calls = await listCalls();
  const before = new Map<string, [Map<string, string>, Map<string, string>]>();
  const people = new Map<string, Person>();
  for (const id of OTHERS) {
    const person = await app.as(id);
    people.set(id, person);
    before.set(id, [await readAll(person, calls), await readAll(person, calls)]);
  }
  const answers = { what: 'bank', new: `${MARK} in the words`, from: '2026-12-01' };
  const sent = await lena.call('POST', '/tickets', {
    serviceId: 'name-change',
    title: `${MARK} in the title`,
    answers,
  });
  expect([sent.status, sent.body]).toMatchObject([200, {}]);
  const { number } = sent.body as { number: number };
  await sofia.call('POST', `/tickets/${number}/messages`, {
    text: `${MARK} as an answer`,
    readBy: 'requester',
  });
  await sofia.call('POST', `/tickets/${number}/messages`, { text: `${MARK} as a note`, readBy: 'team' });
  const { version } = (await sofia.call('GET', `/tickets/${number}`)).body as { version: number };
  await sofia.call('POST', `/tickets/${number}/moves`, { name: 'take', by: 'agent', version, input: {} });
  await until(
    () => app.listo.db.tables.clocks.find({ ticketNumber: number }),
    (clocks) => clocks.length > 0,
  );
  const found: string[] = [];
  for (const [id, person] of people) {
    const after = await readAll(person, [
      ...calls,
      ...['', '/together', '/similar', '/articles', '/mentionable', '/history'].map((rest) => ({
        name: `its own page${rest}`,
        method: 'GET',
        path: `/tickets/${number}${rest}`,
      })),
    ]);
    for (const [name, answer] of after) {
      // What was asked for comes back as it was asked; the mark is not to come from the ticket.
      if (answer.includes(MARK)) found.push(`${id}: ${name} shows the mark`);
      const [one, other] = before.get(id)!.map((answers_) => answers_.get(name));
      if (one === undefined || still(one) !== still(other!)) continue;
      if (still(answer) !== still(one))
        found.push(`${id}: ${name} moved from ${one.slice(0, 300)} to ${answer.slice(0, 300)}`);
    }
    expect((await person.call('GET', `/tickets/${number}`)).status).toBe(404);
  }
  expect(found).toEqual([]);
});

test('what becomes confidential is no longer named where it was', async () => {
  const rui = await app.as('rui');
  const tomas = await app.as('tomas');
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' };
  const { number } = (await tomas.call('POST', '/tickets', { serviceId: 'kiosk', title: 'Kiosk 3', answers }))
    .body as { number: number };
  await until(
    () => rui.call('GET', '/notifications'),
    ({ body }) => JSON.stringify(body).includes(String(number)),
  );
  await rui.call('POST', `/tickets/${number}/timer`, {});
  const read = async () => (await rui.call('GET', `/tickets/${number}`)).body as { version: number };
  const move = { name: 'give', by: 'agent', version: (await read()).version, input: { teamId: 'people' } };
  expect((await rui.call('POST', `/tickets/${number}/moves`, move)).status).toBe(200);
  const { version } = (await sofia.call('GET', `/tickets/${number}`)).body as { version: number };
  await sofia.call('PATCH', `/tickets/${number}`, { version, title: `${MARK} now` });
  for (const path of [
    '/notifications',
    '/my/timer',
    '/find?q=Kiosk',
    '/worklists/everything',
    '/worklists/mine',
    `/named?numbers=${String(number)}`,
  ])
    expect(JSON.stringify((await rui.call('GET', path)).body)).not.toContain(MARK);
});

test('the same matter never opens a thread that is in confidence', async () => {
  const send = async (who: Person): Promise<number> => {
    const answers = { about: 'salary', language: 'en' };
    return (
      (await who.call('POST', '/tickets', { serviceId: 'letter', title: 'A letter', answers })).body as {
        number: number;
      }
    ).number;
  };
  const [one, other] = [await send(lena), await send(await app.as('tomas'))];
  const answer = await sofia.call('PUT', `/tickets/${one}/under`, { under: other, as: 'same' });
  expect(answer).toMatchObject({ status: 422, body: { fields: [{ code: 'inConfidence' }] } });
});

/** A team that keeps its work to itself, by its own choice: the same, but for those who set Listo up. */
test('a team’s closed work is read by its own and whom it names, at once', async () => {
  const [vasco, rui, helder, tomas] = [
    await app.as('vasco'),
    await app.as('rui'),
    await app.as('helder'),
    await app.as('tomas'),
  ];
  const team = async () => {
    const teams = (await helder.call('GET', '/teams')).body as { id: string; version: number }[];
    return teams.find(({ id }) => id === 'onboard')!;
  };
  const set = async (body: object): Promise<number> =>
    (await helder.call('PATCH', '/teams/onboard', { version: (await team()).version, ...body })).status;
  const mark = 'zqxkept';
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'person', urgency: 'slowsWork' };
  const sent = await tomas.call('POST', '/tickets', { serviceId: 'kiosk', title: mark, answers });
  const { number } = sent.body as { number: number };
  expect([sent.status, sent.body]).toMatchObject([200, {}]);
  expect((await vasco.call('GET', `/tickets/${number}`)).status).toBe(200);
  expect(await set({ readBy: ['desk'] })).toBe(200);
  const status = async (who: Person): Promise<number> => (await who.call('GET', `/tickets/${number}`)).status;
  expect(await Promise.all([vasco, rui, helder, tomas, await app.as('bia')].map(status))).toEqual([
    404, 200, 200, 200, 200,
  ]);
  const found = [...(await readAll(vasco, await listCalls()))].filter(([, answer]) => answer.includes(mark));
  expect(found.map(([name]) => name)).toEqual([]);
  expect(await set({ readBy: ['desk', 'onboard'] })).toBe(422);
  expect(await set({ readBy: ['nowhere'] })).toBe(422);
  // Whoever may take it reads it too; all may where every team may take it.
  expect(await set({ givenOnBy: ['apps'] })).toBe(200);
  expect(await status(vasco)).toBe(200);
  expect(await set({ givenOnBy: [], readBy: [] })).toBe(200);
  expect(await status(vasco)).toBe(404);
  expect(await set({ readBy: null })).toBe(200);
  expect(await status(vasco)).toBe(200);
  expect(await set({ givenOnBy: null, readBy: [] })).toBe(200);
  const { version } = (await vasco.call('GET', `/tickets/${number}`)).body as { version: number };
  const give = { name: 'give', by: 'agent', version, input: { teamId: 'apps', assigneeId: 'vasco' } };
  expect((await vasco.call('POST', `/tickets/${number}/moves`, give)).status).toBe(200);
  expect((await vasco.call('GET', `/tickets/${number}`)).body).toMatchObject({ assignee: { id: 'vasco' } });
});
