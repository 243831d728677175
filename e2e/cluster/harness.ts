import { mkdtemp, rm, statfs } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { startCluster } from '../../scripts/galera.mjs';
import { startTestListo, type TestListo } from '../../server/testing/harness';
import type { RunningListo } from '../../server/process';

export type Nodes = Awaited<ReturnType<typeof startCluster>>;

/** So much three nodes need. */
const NEEDED_BYTES = 1.5e9;

/** Memory, where there is enough of it for files; else the disk. */
async function findRoom(): Promise<string> {
  const memory = await statfs('/dev/shm').catch(() => null);
  return memory && memory.bavail * memory.bsize > NEEDED_BYTES ? '/dev/shm' : os.tmpdir();
}

/** A database of three nodes in a folder of its own. */
export async function startNodes(): Promise<Nodes & { end(): Promise<void> }> {
  const room = await findRoom();
  const begin = async (): Promise<Nodes & { end(): Promise<void> }> => {
    const base = await mkdtemp(path.join(room, 'listo-nodes-'));
    const nodes = await startCluster(base, { isForTests: true, removes: [base] });
    return {
      ...nodes,
      async end() {
        await nodes.stop();
        await rm(base, { recursive: true, force: true });
      },
    };
  };
  return begin().catch((error: unknown) => {
    // Another program may take a port between its choice and its use: once more, with other ports, and it is said.
    console.error('The nodes did not start; once more, with other ports.', error);
    return begin();
  });
}

/** The address of a database on the nodes, one of them asked first. */
export const addressOf = (nodes: Nodes, first: number, database: string): string =>
  nodes.urlFrom(first).replace(/listo$/, database);

/** A process on each node first, on one database. */
export async function startOnEach(
  nodes: Nodes,
  name: string,
): Promise<{ app: TestListo; processes: RunningListo[] }> {
  const app = await startTestListo(name, { server: nodes.urlFrom(1) });
  const processes: RunningListo[] = [app];
  for (const node of [2, 3])
    processes.push(await app.another({ DATABASE_URL: addressOf(nodes, node, `test_${name}`) }));
  return { app, processes };
}
