import { startTestListo, type TestListo } from '../testing/harness';
import { createErrorHandler } from './errors';

/** What passes is told as passing, so that browsers and programs come again; only what is not is told as a fault. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('errors', { isEmpty: true });
});
afterAll(() => app.end());

/** What an error that a request ended with is answered as. */
function answerTo(error: unknown): { status: number; type: string } {
  const said = { status: 0, type: '' };
  const response = {
    headersSent: false,
    set: () => response,
    status(status: number) {
      said.status = status;
      return response;
    },
    type: () => response,
    json: (body: { type: string }) => void (said.type = body.type),
    send: (body: string) => void (said.type = (JSON.parse(body) as { type: string }).type),
  };
  const request = { id: 'r1', log: { error: () => undefined }, method: 'GET', originalUrl: '/' };
  void createErrorHandler(app.listo)(error, request as never, response as never, () => undefined);
  return said;
}

// MariaDB error codes by name: a node that is not in its cluster (1047), a lock waited for too long (1205), a deadlock
// (1213), a full disk (1021, 1114), a server that only reads (1290), one that shuts down (1053).
test.each([
  ...[
    'ER_UNKNOWN_COM_ERROR',
    'ER_LOCK_WAIT_TIMEOUT',
    'ER_LOCK_DEADLOCK',
    'ER_DISK_FULL',
    'ER_RECORD_FILE_FULL',
  ],
  ...['ER_OPTION_PREVENTS_STATEMENT', 'ER_SERVER_SHUTDOWN', 'ECONNREFUSED', 'ER_GET_CONNECTION_TIMEOUT'],
])('%s passes', (code) => {
  expect(answerTo(Object.assign(new Error('x'), { code }))).toEqual({
    status: 503,
    type: '/problems/notReady',
  });
  const wrapped = Object.assign(new Error('x'), { original: { code } });
  expect(answerTo(wrapped).status).toBe(503);
});

test.each(['ER_PARSE_ERROR', 'ER_BAD_FIELD_ERROR', undefined])('%s does not', (code) => {
  expect(answerTo(Object.assign(new Error('x'), { code }))).toEqual({
    ...{ status: 500, type: '/problems/unexpected' },
  });
});

test('it is ready only as long as it can write', async () => {
  const ready = async () => (await fetch(`${app.url}/readyz`)).status;
  expect(await ready()).toBe(200);
  const { db } = app.listo;
  const { run } = db;
  // Reading goes on; writing is refused, as by a full disk.
  db.run = () => Promise.reject(Object.assign(new Error('full'), { code: 'ER_DISK_FULL' }));
  expect(await ready()).toBe(503);
  expect((await fetch(`${app.url}/healthz`)).status).toBe(200);
  db.run = run;
  expect(await ready()).toBe(200);
});
