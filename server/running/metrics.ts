import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import type { RequestHandler } from 'express';
import { isFrom, toNetwork } from '../../core/programs';
import { CONNECTIONS, readSeats, type Sort } from '../database/busy';
import { nodesOf } from '../database/nodes';
import { ProblemError } from '../http/problems';
import { isStream } from '../http/streams';
import type { Listo } from '../listo';
import { readWaiting } from './read';

const SECONDS = [0.01, 0.025, 0.05, 0.1, 0.3, 0.5, 1, 2.5, 5, 10];

/** Names of what is measured begin with this. */
const PREFIX = 'listo_';

type Measured = { time: RequestHandler; answer: RequestHandler };

/** All that is measured. */
function createGauges(registry: Registry<typeof Registry.OPENMETRICS_CONTENT_TYPE>) {
  const registers = [registry] as never[];
  const gauge = (name: string, help: string, labelNames: string[] = []): Gauge =>
    new Gauge({ name: `${PREFIX}${name}`, help, labelNames, registers });
  return {
    requests: new Histogram({
      ...{
        name: `${PREFIX}request_seconds`,
        help: 'Time until a request was answered, in seconds',
        registers,
      },
      ...{ labelNames: ['method', 'route', 'status'], buckets: SECONDS },
    }),
    up: gauge('database_up', 'Whether the database answers'),
    node: gauge('database_node', 'Which of the hosts of the database is used, from 0'),
    used: gauge('database_connections_used', 'Connections in use', ['sort']),
    most: gauge('database_connections_most', 'Connections at most', ['sort']),
    lined: gauge('database_statements_waiting', 'Statements that wait for a connection', ['sort']),
    streams: gauge('streams', 'Browsers that are told live'),
    waiting: gauge('waiting', 'How many wait for a part', ['part']),
    longest: gauge('waiting_longest_seconds', 'For how long the first of them has waited', ['part']),
  };
}

/**
 * Measures for an operator, as OpenMetrics 1.0 writes them: requests by route, what waits for each part and for how
 * long, streams, connections. Only addresses that are named may read them.
 */
export function createMetrics(listo: Listo, streamsNow: () => number): Measured {
  const registry = new Registry<typeof Registry.OPENMETRICS_CONTENT_TYPE>();
  registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
  const { requests, up, node, used, most, lined, streams, waiting, longest } = createGauges(registry);
  let isCollecting = false;

  async function collect(): Promise<void> {
    // What costs something while it is collected begins with who first asks for it.
    if (!isCollecting) collectDefaultMetrics({ register: registry });
    isCollecting = true;
    streams.set(streamsNow());
    node.set(nodesOf(listo.db.sequelize).at);
    for (const sort of ['pages', 'background'] satisfies Sort[]) {
      const seats = readSeats(listo.db.sequelize, sort);
      used.set({ sort }, seats.used);
      lined.set({ sort }, seats.waiting);
      most.set({ sort }, CONNECTIONS[sort]);
    }
    try {
      for (const [part, each] of Object.entries(await readWaiting(listo))) {
        waiting.set({ part }, each.waiting);
        longest.set({ part }, each.longestMs / 1_000);
      }
      up.set(1);
    } catch {
      up.set(0);
    }
  }

  return {
    time(request, response, next) {
      if (isStream(request)) {
        next();
        return;
      }
      const stop = requests.startTimer({ method: request.method });
      response.once('close', () => {
        const at = (request.route as { path?: string } | undefined)?.path;
        stop({ route: at ? `${request.baseUrl}${at}` : 'none', status: response.statusCode });
      });
      next();
    },
    async answer(request, response) {
      const networks = listo.config.LISTO_METRICS_NETWORKS.split(',').flatMap(
        (each) => toNetwork(each.trim()) ?? [],
      );
      if (!isFrom(networks, request.ip ?? '') || networks.length === 0) throw new ProblemError('notFound');
      await collect();
      response.type(registry.contentType).send(await registry.metrics());
    },
  };
}
