import { makeProgram } from '../testing/programs';
import { startTestListo, type TestListo } from '../testing/harness';

/** The pages of the interface, and a client that is made from its description alone. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('interface');
});
afterAll(() => app.end());

test('the pages load nothing from elsewhere, and all that they name is there', async () => {
  const page = await fetch(`${app.url}/interface`);
  const html = await page.text();
  expect([page.status, page.headers.get('Content-Type')]).toEqual([200, 'text/html; charset=utf-8']);
  const named = [...html.matchAll(/(?:src|href)="([^"]+)"/g)].map(([, address]) => address!);
  expect(named.every((address) => address.startsWith('/'))).toBe(true);
  for (const address of named.filter((each) => each.startsWith('/interface/')))
    expect([address, (await fetch(app.url + address)).status]).toEqual([address, 200]);
  expect(page.headers.get('Content-Security-Policy')).toContain("script-src 'self'");
  expect((await fetch(`${app.url}/interface/assets/nothing.js`)).status).toBe(404);
});

type Operation = { operationId: string; parameters?: { name: string; in: string }[] };
type Description = { servers: [{ url: string }]; paths: Record<string, Record<string, Operation>> };

/** A client of the description: it knows nothing but what the document says. */
async function createClient(key: string) {
  const document = (await (await fetch(`${app.url}/api/v1/openapi.json`)).json()) as Description;
  const operations = new Map(
    Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, operation]) => [
        operation.operationId,
        { path, method, operation },
      ]),
    ),
  );
  return async (id: string, given: Record<string, string | number> = {}, body?: object) => {
    const { path, method, operation } = operations.get(id)!;
    let address = path;
    const query = new URLSearchParams();
    for (const { name, in: where } of operation.parameters ?? []) {
      if (where === 'path') address = address.replace(`{${name}}`, encodeURIComponent(String(given[name])));
      if (where === 'query' && given[name] !== undefined) query.set(name, String(given[name]));
    }
    const search = query.size > 0 ? `?${query.toString()}` : '';
    const response = await fetch(`${app.url}${document.servers[0].url}${address}${search}`, {
      method: method.toUpperCase(),
      headers: { Authorization: `Bearer ${key}`, ...(body && { 'Content-Type': 'application/json' }) },
      ...(body && { body: JSON.stringify(body) }),
    });
    return { status: response.status, body: (await response.json()) as Record<string, unknown> };
  };
}

test('a client that is made from the description raises a ticket, answers it and finds it in a list', async () => {
  const { key } = await makeProgram(app, { teams: [{ teamId: 'onboard', role: 'agent' }] });
  const call = await createClient(key);
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' };
  const ticket = { serviceId: 'kiosk', title: 'From a program', answers, requesterId: 'tomas' };
  const sent = await call('tickets.create', {}, ticket);
  expect(sent.status).toBe(200);
  const number = sent.body.number as number;
  const words = { text: 'Seen by a machine.', readBy: 'team', links: [], fileIds: [] };
  expect((await call('tickets.write', { number }, words)).status).toBe(200);
  expect(await call('tickets.get', { number })).toMatchObject({
    status: 200,
    body: { title: 'From a program' },
  });
  expect(JSON.stringify((await call('tickets.find', { q: 'From a program' })).body)).toContain(
    String(number),
  );
});

test('each call says who may make it: with a key, with a session, or anyone', async () => {
  const document = (await (await fetch(`${app.url}/api/v1/openapi.json`)).json()) as {
    security: object[];
    paths: Record<string, Record<string, { security?: object[]; description?: string }>>;
  };
  expect(document.security).toEqual([{ key: [] }, { session: [] }]);
  expect(document.paths['/session']!.post!.security).toEqual([]);
  expect(document.paths['/my/password']!.put!.description).toContain('programs are refused');
});
