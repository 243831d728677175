import { parentPort, workerData } from 'node:worker_threads';
import type { Config } from '../config';
import { createListo } from '../createListo';
import { readEffect, type Change } from './effect';
import { recountSome } from './recount';

/** What the thread is given: a change to look at, or (without one) the recounts that wait. */
export type WorkerTask = { config: Config; clockOffset: number; change?: Change };

const { config, clockOffset, change } = workerData as WorkerTask;
const listo = createListo(config, { clock: { now: () => Date.now() + clockOffset } });
if (change) parentPort!.postMessage(await readEffect(listo, change));
else
  while (await recountSome(listo)) {
    // The clocks' consumer gets its turn between two chunks.
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
await listo.db.close();
