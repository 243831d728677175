import { chmodSync, cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as delay } from 'node:timers/promises';
import mariadb from 'mariadb';
import { findPosition, freePort, startMariaDb } from './mariadb.mjs';
import { ensureDebianPackage } from './ready.mjs';

const WAIT_MS = 60_000;
/** By then the others know that a node is gone. */
const NOTICED_MS = 15_000;

/** What a node says about itself; null where it does not answer. */
export async function askNode(url) {
  const connection = await mariadb.createConnection(`${url}?connectTimeout=1000`).catch(() => null);
  if (!connection) return null;
  try {
    const rows = await connection.query(
      "SHOW STATUS WHERE Variable_name IN ('wsrep_ready', 'wsrep_cluster_size', 'wsrep_cluster_status', 'wsrep_local_state_comment')",
    );
    const status = Object.fromEntries(rows.map(({ Variable_name: name, Value }) => [name, Value]));
    return {
      isReady: status.wsrep_ready === 'ON' && status.wsrep_local_state_comment === 'Synced',
      size: Number(status.wsrep_cluster_size),
      state: status.wsrep_local_state_comment,
    };
  } catch {
    return null;
  } finally {
    await connection.end().catch(() => undefined);
  }
}

/** How far a node has come, as a number; -1: it has no data. */
const stepOf = (position) => (position ? Number(position.split(':')[1]) : -1);

/** Lets the cluster begin anew from a node that may not have been the last to leave: whoever starts it says so. */
function letBegin(base) {
  const state = path.join(base, 'data', 'grastate.dat');
  if (!existsSync(state)) return;
  writeFileSync(state, readFileSync(state, 'utf8').replace('safe_to_bootstrap: 0', 'safe_to_bootstrap: 1'));
}

function copyNode(from, to) {
  mkdirSync(path.join(to, 'tmp'), { recursive: true, mode: 0o700 });
  for (const name of ['data', 'made', 'password'])
    cpSync(path.join(from, name), path.join(to, name), {
      recursive: true,
      // The others' memory, and who it is itself, are each node's own.
      filter: (file) => !/\/(galera\.cache|gvwstate\.dat)$/.test(file),
    });
  const state = path.join(to, 'data', 'grastate.dat');
  writeFileSync(state, readFileSync(state, 'utf8').replace('safe_to_bootstrap: 1', 'safe_to_bootstrap: 0'));
}

/**
 * Starts a cluster of MariaDB nodes (Galera) on loopback, each with its data under `base`. Each node can be killed, cut
 * off (held still, so that the others think it is gone) and started again.
 * @param {string} base
 * @param {{ nodes?: number, isForTests?: boolean, removes?: string[] }} options
 */
export async function startCluster(base, { nodes: count = 3, isForTests = false, removes = [] } = {}) {
  // Debian's server brings the library by which nodes agree, and what hands data over.
  ensureDebianPackage('mariadb-server', 'mariadbd', 'mysqld');
  ensureDebianPackage('rsync', 'rsync');
  // The folders of the nodes are their own account's; the way there is open.
  mkdirSync(base, { recursive: true });
  chmodSync(base, 0o711);
  const places = [];
  for (let i = 0; i < count; i++)
    places.push({
      ...{ name: `node${i + 1}`, base: path.join(base, `node${i + 1}`), server: null },
      ...{ port: await freePort(), sqlPort: await freePort() },
      ...{ receivesAt: await freePort(), sharesAt: await freePort() },
    });
  const ports = places.map(({ port }) => port);
  let password;

  async function startNode(place, isFirst) {
    if (isFirst) letBegin(place.base);
    const position = findPosition(place.base);
    place.server = await startMariaDb(place.base, {
      ...{ isForTests, isForMany: true, removes, port: place.sqlPort, password },
      node: {
        ...place,
        others: ports.filter((port) => port !== place.port),
        isFirst,
        position,
        remembersMb: isForTests ? 48 : 256,
      },
    });
    password ??= decodeURIComponent(new URL(place.server.url).password);
    place.url = place.server.url;
    for (let waited = 0; !(await askNode(place.url))?.isReady; waited += 200) {
      if (waited > WAIT_MS) throw new Error(`${place.name} did not join; its log is ${place.base}/error.log`);
      await delay(200);
    }
  }

  const find = (number) => {
    const place = places[number - 1];
    if (!place) throw new Error(`There is no node ${number}: there are 1 to ${places.length}.`);
    return place;
  };
  // Who has come furthest has everything that was acknowledged.
  const [first] = [...places].sort((a, b) => stepOf(findPosition(b.base)) - stepOf(findPosition(a.base)));
  await startNode(first, true);
  if (places.some((place) => !existsSync(place.base))) {
    // New nodes begin with a copy, so that nothing has to be handed over while they start.
    await first.server.stop();
    for (const place of places) if (!existsSync(place.base)) copyNode(first.base, place.base);
    await startNode(first, true);
  }
  for (const place of places) if (place !== first) await startNode(place, false);
  const hosts = places.map(({ sqlPort }) => `127.0.0.1:${sqlPort}`);
  return {
    password,
    /** The address of the whole, with one node as the first to be asked. */
    urlFrom(number = 1) {
      const ordered = [...hosts.slice(number - 1), ...hosts.slice(0, number - 1)];
      return `mariadb://listo:${password}@${ordered.join(',')}/listo`;
    },
    urlOf: (number) => find(number).url,
    ask: () => Promise.all(places.map(async ({ name, url }) => ({ name, ...(await askNode(url)) }))),
    kill(number) {
      process.kill(find(number).server.pid, 'SIGKILL');
    },
    hold: (number) => process.kill(find(number).server.pid, 'SIGSTOP'),
    release: (number) => process.kill(find(number).server.pid, 'SIGCONT'),
    /** Starts a node that is gone; it takes what it missed from the others. */
    async start(number, { isFirst = false } = {}) {
      const place = find(number);
      await place.server?.stop();
      // One that is back before the others know that it was gone makes them all begin to agree anew, for long.
      const others = places.filter((each) => each !== place);
      for (let waited = 0; waited < NOTICED_MS; waited += 200) {
        const sizes = (await Promise.all(others.map(({ url }) => askNode(url)))).flatMap((each) =>
          each?.isReady ? [each.size] : [],
        );
        if (sizes.every((size) => size < places.length)) break;
        await delay(200);
      }
      rmSync(path.join(place.base, 'pid'), { force: true });
      await startNode(place, isFirst);
    },
    async stop() {
      for (const place of [...places].reverse()) await place.server?.stop();
    },
  };
}
