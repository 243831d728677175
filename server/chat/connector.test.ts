import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { ChatAway, ChatRefused, createConnector, type ChatConnector } from './connector';

/** What counts as the chat's word, and what as its being away: what is away is asked again under the same key. */
let answer: RequestListener;
let server: Server;
let chat: ChatConnector;
beforeAll(async () => {
  server = createServer((request, response) => answer(request, response));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  chat = createConnector({
    url: `http://127.0.0.1:${port}`,
    secret: `whsec_${Buffer.alloc(24, 3).toString('base64')}`,
  });
});
afterAll(() => new Promise((resolve) => server.close(resolve)));

const post = () => chat.post({ key: 'k1', roomId: 'alder', text: 'Hello' });
const gives =
  (status: number, body: string, type = 'application/json'): RequestListener =>
  (_request, response) =>
    response.writeHead(status, { 'Content-Type': type }).end(body);

test('an answer of the chat is taken as it is', async () => {
  answer = gives(200, '{"id":"m1","roomId":"alder"}');
  expect(await post()).toEqual({ id: 'm1', roomId: 'alder' });
});

test.each<[string, RequestListener]>([
  ['a page of something in between', gives(200, '<html>Maintenance</html>', 'text/html')],
  ['a page that says there is nothing', gives(404, '<html>Not found</html>', 'text/html')],
  ['a refusal without a word', gives(403, '{}')],
  ['a list instead of an answer', gives(200, '[]')],
  ['nothing at all', gives(200, '')],
  ['a fault of its own', gives(500, '{"error":"boom"}')],
  ['too many requests', gives(429, '{"error":"slow down"}')],
  ['another address', (_request, response) => response.writeHead(302, { Location: '/elsewhere' }).end()],
  [
    'an answer that is cut',
    (_request, response) => {
      response.writeHead(200, { 'Content-Type': 'application/json', 'Content-Length': '400' });
      response.write('{"id":"m1",', () => response.destroy());
    },
  ],
  ['a connection that is reset', (request) => request.socket.destroy()],
])('%s means that the chat is away', async (_name, listener) => {
  answer = listener;
  await expect(post()).rejects.toBeInstanceOf(ChatAway);
});

test.each([400, 403, 404, 409, 410, 422])('a well-formed refusal (%i) is final', async (status) => {
  answer = gives(status, '{"error":"no such room"}');
  await expect(post()).rejects.toBeInstanceOf(ChatRefused);
  await expect(post()).rejects.toThrow('no such room');
});
