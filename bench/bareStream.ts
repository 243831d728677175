import { createServer, type ServerResponse } from 'node:http';

/** A bare event stream: what is posted goes to everyone who listens. */
const listeners = new Set<ServerResponse>();
const server = createServer((request, response) => {
  if (request.method === 'GET') {
    response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    response.write('event: here\ndata: {}\n\n');
    listeners.add(response);
    response.on('close', () => listeners.delete(response));
    return;
  }
  let body = '';
  request.on('data', (part: Buffer) => (body += part.toString()));
  request.on('end', () => {
    for (const listener of listeners) listener.write(`data: ${body}\n\n`);
    response.end('{}');
  });
});
server.listen(0, '127.0.0.1', () => process.send!(server.address()));
process.on('disconnect', () => process.exit());
