import { Worker } from 'node:worker_threads';
import type { Listo } from '../listo';
import type { Effect } from './effect';
import type { Answered, Asked, Look } from '../recountWorker';

/** A look at a change is mostly followed by another one, or by the change: the thread waits for it so long. */
const IDLE_MS = 300_000;

type Waiting = { of: Worker; resolve(answered: Answered): void; reject(error: Error): void };

/** Work on every open ticket is done in a thread of its own, so that pages go on being answered. */
class Thread {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private lastId = 0;
  private idle: NodeJS.Timeout | undefined;

  constructor(private readonly listo: Listo) {}

  async ask(look?: Look): Promise<Effect | null> {
    const { listo } = this;
    const asked: Asked = {
      id: ++this.lastId,
      clockOffset: listo.clock.now() - Date.now(),
      ...(look && { look }),
    };
    clearTimeout(this.idle);
    this.worker ??= this.start();
    const { worker } = this;
    try {
      const { error, effect } = await new Promise<Answered>((resolve, reject) => {
        this.waiting.set(asked.id, { of: worker, resolve, reject });
        worker.postMessage(asked);
      });
      if (error !== undefined) throw new Error(error);
      return effect ?? null;
    } finally {
      this.waiting.delete(asked.id);
      if (this.waiting.size === 0) this.idle = setTimeout(() => void this.end(), IDLE_MS).unref();
    }
  }

  async end(): Promise<void> {
    clearTimeout(this.idle);
    const { worker } = this;
    this.worker = null;
    await worker?.terminate();
  }

  private start(): Worker {
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), {
      workerData: this.listo.config,
      execArgv: [],
    });
    worker.on('message', (answered: Answered) => this.waiting.get(answered.id)?.resolve(answered));
    const fail = (error: Error): void => {
      if (this.worker === worker) this.worker = null;
      for (const { of, reject } of this.waiting.values()) if (of === worker) reject(error);
    };
    worker.once('error', fail);
    worker.once('exit', () => fail(new Error('the thread ended without an answer')));
    return worker;
  }
}

const threads = new WeakMap<Listo, Thread>();

/** What the thread of a process answers; it is started when it is first asked. */
export function askThread(listo: Listo, look?: Look): Promise<Effect | null> {
  const thread = threads.get(listo) ?? new Thread(listo);
  threads.set(listo, thread);
  return thread.ask(look);
}

export async function endThread(listo: Listo): Promise<void> {
  await threads.get(listo)?.end();
}
