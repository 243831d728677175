import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { createBalancer } from './balancer.mjs';

/** What hands requests to several processes. */
const servers: http.Server[] = [];
async function listen(server: http.Server): Promise<number> {
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return (server.address() as AddressInfo).port;
}
const named = (name: string): Promise<number> =>
  listen(
    http.createServer((request, response) => {
      let body = '';
      request.on('data', (piece: Buffer) => (body += piece.toString()));
      request.on('end', () => response.end(`${name} ${body} ${String(request.headers['x-forwarded-for'])}`));
    }),
  );
const DEAD_PORT = 1;
afterAll(() => {
  for (const server of servers) server.close();
});

const askAt = async (port: number, body = 'hello'): Promise<{ status: number; text: string }> => {
  const response = await fetch(`http://127.0.0.1:${port}/`, { method: 'POST', body });
  return { status: response.status, text: await response.text() };
};

test('processes are asked in turn, each with whole bodies and with who asks', async () => {
  const ports = [await named('one'), await named('two')];
  const balancer = await listen(createBalancer(() => ports));
  const answers = [await askAt(balancer), await askAt(balancer)].map(({ text }) => text);
  expect(answers.sort()).toEqual(['one hello 127.0.0.1', 'two hello 127.0.0.1']);
});

test('one that takes no connection is passed over, and nothing of the request is lost', async () => {
  const balancer = await listen(createBalancer(() => [DEAD_PORT, alive]));
  const alive = await named('alive');
  const body = 'x'.repeat(200_000);
  for (let i = 0; i < 4; i++) {
    const { status, text } = await askAt(balancer, body);
    expect([status, text.length]).toEqual([200, 'alive '.length + body.length + ' 127.0.0.1'.length]);
  }
});

test('where nobody is there, that is said, with when to ask again', async () => {
  for (const ports of [[], [DEAD_PORT]]) {
    const balancer = await listen(createBalancer(() => ports));
    const response = await fetch(`http://127.0.0.1:${balancer}/`);
    expect([response.status, response.headers.get('Retry-After')]).toEqual([503, '1']);
  }
});

test('one that ends in the middle is not asked twice: who asked hears that there is no answer', async () => {
  let asked = 0;
  const breaking = await listen(
    http.createServer((request) => {
      asked++;
      request.socket.destroy();
    }),
  );
  const other = await named('other');
  const balancer = await listen(createBalancer(() => [breaking, other]));
  await expect(askAt(balancer)).rejects.toThrow();
  expect(asked).toBe(1);
});
