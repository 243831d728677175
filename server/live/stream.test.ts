import { createServer, type ServerResponse } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { beginStream, sendPiece } from './stream';

/** A stream to someone who connects, asks, and reads nothing of it. */
async function openToSilentReader() {
  let isBegun: (response: ServerResponse) => void;
  const begun = new Promise<ServerResponse>((resolve) => (isBegun = resolve));
  const server = createServer((_request, response) => {
    beginStream(response as never);
    isBegun(response);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const reader = connect((server.address() as AddressInfo).port, '127.0.0.1');
  reader.pause();
  reader.on('error', () => undefined);
  reader.write('GET / HTTP/1.1\r\nHost: x\r\n\r\n');
  const response = await begun;
  const end = async () => {
    reader.destroy();
    await new Promise((resolve) => server.close(resolve));
  };
  return { response, end };
}

test('who reads nothing is let go before much is kept for them', async () => {
  const { response, end } = await openToSilentReader();
  const piece = `data: ${'x'.repeat(100_000)}\n\n`;
  let kept = 0;
  let pieces = 0;
  while (pieces < 1_000 && sendPiece(response as never, piece)) {
    pieces++;
    kept = Math.max(kept, response.socket?.writableLength ?? 0);
  }
  expect(pieces).toBeLessThan(1_000);
  expect(kept).toBeLessThan(2_000_000);
  expect(response.destroyed || response.socket === null || response.socket.destroyed).toBe(true);
  await end();
});
