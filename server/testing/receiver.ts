import { createServer, type IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';

type Came = { headers: IncomingHttpHeaders; body: string };
/** How the receiver answers. `hangs`: not at all. */
type Mode = { status: number; headers?: Record<string, string>; text?: string } | 'hangs';

/** A program that is told something: it keeps what came and answers as it is set to. */
export async function startReceiver(): Promise<{
  url: string;
  came: Came[];
  answerWith(mode: Mode): void;
  end(): void;
}> {
  const came: Came[] = [];
  let mode: Mode = { status: 204 };
  const server = createServer((request, response) => {
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', () => {
      came.push({ headers: request.headers, body: Buffer.concat(parts).toString('utf8') });
      if (mode !== 'hangs') response.writeHead(mode.status, mode.headers).end(mode.text);
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    came,
    answerWith: (wanted) => void (mode = wanted),
    end() {
      server.closeAllConnections();
      server.close();
    },
  };
}
