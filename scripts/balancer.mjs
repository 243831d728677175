import http from 'node:http';

/** A process that did not answer is asked again after so long. */
const REST_MS = 1_000;

/**
 * Hands requests to processes in turn; one that takes no connection is passed over for a moment. What stands between a
 * browser and several processes in the demonstration and the tests; in earnest that is a proxy of the organisation's.
 * @param {() => number[]} listPorts the processes that are there
 * @returns {import('node:http').Server}
 */
export function createBalancer(listPorts) {
  /** Until when a port is passed over. */
  const resting = new Map();
  let next = 0;

  const handOn = (request, response, ports) => {
    const [port, ...others] = ports;
    if (port === undefined) {
      response
        .writeHead(503, { 'Content-Type': 'text/plain', 'Retry-After': '1' })
        .end('No process answers.');
      return;
    }
    const headers = {
      ...request.headers,
      'x-forwarded-for': request.socket.remoteAddress,
      'x-forwarded-proto': 'http',
    };
    const onward = http.request(
      { host: '127.0.0.1', port, method: request.method, path: request.url, headers },
      (answer) => {
        response.writeHead(answer.statusCode, answer.headers);
        response.flushHeaders();
        answer.pipe(response);
        answer.on('error', () => response.destroy());
      },
    );
    let isTaken = false;
    onward.once('socket', (socket) => {
      const begin = () => {
        isTaken = true;
        request.pipe(onward);
      };
      // Nothing of the request is read before somebody takes it, so that another can still be asked.
      if (socket.connecting) socket.once('connect', begin);
      else begin();
    });
    onward.on('error', () => {
      if (isTaken) {
        // What it did is not known: who asked hears that there is no answer.
        response.destroy();
        return;
      }
      resting.set(port, Date.now() + REST_MS);
      handOn(request, response, others);
    });
    response.on('close', () => onward.destroy());
  };

  return http.createServer((request, response) => {
    const all = listPorts();
    const turn = next++;
    const inTurn = all.map((_, i) => all[(turn + i) % all.length]);
    const isUp = (port) => (resting.get(port) ?? 0) < Date.now();
    handOn(request, response, [...inTurn.filter(isUp), ...inTurn.filter((port) => !isUp(port))]);
  });
}
