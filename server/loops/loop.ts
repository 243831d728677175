import { nanoid } from 'nanoid';
import { asBackground } from '../database/busy';
import type { Listo } from '../listo';
import { freeLease, holdLease } from './lease';

const IDLE_MS = 1_500;
const RETRY_MS = 250;
const LONGEST_WAIT_MS = 5_000;

export type Loop = { wake(): void; stop(): Promise<void> };

/**
 * Works off what lies in a table, in one process at a time: at once when woken, and looking again shortly for what other
 * processes put there. `turn` says how much was done, or that it could not (then the wait doubles).
 */
export function startLoop(listo: Listo, name: string, turn: () => Promise<number | 'wait'>): Loop {
  const holder = nanoid();
  let isStopped = false;
  let isWanted = false;
  /** Asked after an await: it may have changed meanwhile. */
  const wasWoken = (): boolean => isWanted;
  let failures = 0;
  let timer: NodeJS.Timeout | undefined;
  let running: Promise<void> | null = null;

  async function run(): Promise<void> {
    isWanted = false;
    let wait = IDLE_MS;
    try {
      const done = (await holdLease(listo, name, holder)) ? await turn() : 0;
      failures = done === 'wait' ? failures + 1 : 0;
      if (done === 'wait') wait = Math.min(LONGEST_WAIT_MS, RETRY_MS * 2 ** Math.min(failures, 6));
      else if (done > 0 || wasWoken()) wait = 0;
    } catch (error) {
      if (!isStopped) listo.log.error({ err: error, loop: name }, 'a loop failed; trying again');
      wait = 1_000;
    }
    running = null;
    schedule(wait);
  }
  function schedule(ms: number): void {
    if (isStopped) return;
    clearTimeout(timer);
    timer = setTimeout(() => {
      running = asBackground(run);
    }, ms);
    timer.unref();
  }
  schedule(0);
  return {
    wake() {
      isWanted = true;
      if (!running && failures === 0) schedule(0);
    },
    async stop() {
      isStopped = true;
      clearTimeout(timer);
      await running;
      await freeLease(listo, name, holder).catch(() => undefined);
    },
  };
}
