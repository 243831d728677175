import { parentPort, workerData } from 'node:worker_threads';
import type { Viewer } from '../core/rights';
import type { Config } from './config';
import { createListo } from './createListo';
import { lowerOwnPriority } from './lowPriority';
import { readEffect, type Change, type Effect } from './recounts/effect';
import { recountSome } from './recounts/recount';

/** What the thread is asked: a change to look at, or (without one) the recounts that wait. */
export type Asked = { id: number; clockOffset: number; look?: Look };
/** A change that someone looks at before it is made. */
export type Look = { change: Change; viewer: Viewer };
export type Answered = { id: number; effect?: Effect; error?: string };

lowerOwnPriority();
let clockOffset = 0;
const listo = createListo(workerData as Config, { clock: { now: () => Date.now() + clockOffset } });

async function recountAll(): Promise<void> {
  while (await recountSome(listo));
}

async function answer({ id, look }: Asked): Promise<Answered> {
  try {
    if (look) return { id, effect: await readEffect(listo, look.viewer, look.change) };
    await recountAll();
    return { id };
  } catch (error) {
    return { id, error: (error as Error).stack ?? String(error) };
  }
}

parentPort!.on('message', (asked: Asked) => {
  clockOffset = asked.clockOffset;
  void answer(asked).then((answered) => parentPort!.postMessage(answered));
});
