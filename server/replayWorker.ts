import { workerData } from 'node:worker_threads';
import type { Language } from '../core/forms';
import type { Viewer } from '../core/rights';
import type { Config } from './config';
import { createListo } from './createListo';
import { lowerOwnPriority } from './lowPriority';
import { replay } from './replays/replay';

/** What the thread is given: whose replay it is, and what the clock says. */
export type ReplayTask = {
  config: Config;
  clockOffset: number;
  id: string;
  viewer: Viewer & { language: Language };
};

lowerOwnPriority();
const { config, clockOffset, id, viewer } = workerData as ReplayTask;
const listo = createListo(config, { clock: { now: () => Date.now() + clockOffset } });
const { replays } = listo.db.tables;
try {
  const row = (await replays.findOne({ id }))!;
  const result = await replay(listo, viewer, {
    asked: row.asked,
    onProgress: async (done, total) => {
      await replays.update({ id }, { done, total });
      return (await replays.findOne({ id }))?.state === 'running';
    },
  });
  if (result)
    await replays.update({ id, state: 'running' }, { state: 'done', result, total: result.tickets });
} catch (error) {
  await replays.update({ id }, { state: 'failed' });
  listo.log.error({ err: error, replay: id }, 'a replay failed');
}
await listo.db.close();
