import { arrange } from '../core/estate';
import type { ThingRow } from '../server/estate/model';
import { readNetwork } from '../server/estate/network';
import { thingRow } from '../server/testing/things';
import { createEstate } from './estate';
import { prepareDemo } from './prepare';
import { p95, median, report } from './report';
import { signIn, startServer } from './server';

const COUNT = 100_000;
const CHUNK = 2_000;
const CALLS = 60;

const ms = (time: number): string => `${time.toFixed(1)} ms`;

async function timesOf(work: (i: number) => Promise<unknown>, calls = CALLS): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < calls; i++) {
    const start = performance.now();
    await work(i);
    times.push(performance.now() - start);
  }
  return times;
}

/** The Estate with 100,000 things and 300,000 members of needs: its pages beside the bare driver’s read of a key. */
export async function benchThings(): Promise<void> {
  const listo = await prepareDemo();
  const { things: ids, needs } = createEstate(COUNT);
  const { things, thingNeeds } = listo.db.tables;
  const there = await listo.db.select<{ n: number }>("SELECT COUNT(*) AS n FROM things WHERE id LIKE 't%0'");
  if (there[0]!.n < 1_000)
    for (let i = 0; i < COUNT; i += CHUNK) {
      const rows: ThingRow[] = ids
        .slice(i, i + CHUNK)
        .map((id) =>
          thingRow({ id, kindId: 'network', name: `Thing ${id}`, tag: `B-${id}`, model: 'Bench' }),
        );
      await things.insertAll(rows);
      await thingNeeds.insertAll(
        needs.slice(i, i + CHUNK).map(({ thing, atLeast, of }, n) => ({
          ...{ id: `n${i + n}`, thingId: thing, atLeast, members: of, isGone: false },
        })),
      );
    }
  const server = await startServer();
  const cookie = await signIn(server.url, 'helder');
  const get = async (path: string): Promise<unknown> => {
    const answer = await fetch(`${server.url}/api/v1${path}`, { headers: { Cookie: cookie } });
    if (answer.status !== 200) throw new Error(`${path}: ${answer.status}`);
    return answer.json();
  };
  const start = performance.now();
  await readNetwork(listo);
  report('the network read for the first time', ms(performance.now() - start), `${COUNT} things`);
  const again = await timesOf(() => readNetwork(listo), 20);
  report('read again, nothing changed', ms(median(again)));
  await things.update({ id: 't5' }, { state: 'inRepair' });
  const changed = performance.now();
  await readNetwork(listo);
  report('read again after one changed', ms(performance.now() - changed), 'all standings reckoned anew');
  await things.update({ id: 't5' }, { state: 'inUse' });
  const of = (i: number): string => `t${(i * 1_597) % COUNT}`;
  await get(`/things/${of(1)}/hangs`);
  const key = await timesOf((i) => listo.db.select('SELECT * FROM things WHERE id = :id', { id: of(i) }));
  for (const [what, path] of [
    ['a thing’s page', ''],
    ['what hangs on it', '/hangs'],
    ['the map around it, three steps', '/map?depth=3'],
  ] as const) {
    const page = await timesOf((i) => get(`/things/${of(i)}${path}`));
    report(
      what,
      `p95 ${ms(p95(page))}`,
      `${(p95(page) / p95(key)).toFixed(1)} × the bare key (${ms(p95(key))})`,
    );
  }
  const list = await timesOf((i) => get(`/things?q=${of(i)}`), 20);
  report('the list, by a few letters', `p95 ${ms(p95(list))}`);
  const centre = needs[500]!.thing;
  const map = (await get(`/things/${centre}/map?depth=20`)) as {
    things: { id: string; place: string }[];
    needs: { thing: string; of: string[] }[];
  };
  const edges = map.needs.flatMap(({ thing, of: members }) => members.map((to) => ({ from: thing, to })));
  for (const by of ['layers', 'rings', 'places'] as const) {
    const times = await timesOf(() => {
      arrange({ things: map.things, edges }, { by, centre: centre });
      return Promise.resolve();
    }, 7);
    report(`${map.things.length} things put on a map, ${by}`, ms(median(times)), `${edges.length} lines`);
  }
  await server.stop();
  await listo.db.close();
}
