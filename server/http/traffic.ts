import { setTimeout as delay } from 'node:timers/promises';
import type { RequestHandler } from 'express';
import { isStream } from './streams';

/** From so many requests at once on, those who asked wait for each other. */
const MANY = 4;
/** Then work that nobody waits for gets its turn so often, in ms: it gets on, whatever happens. */
const PAUSE_MS = 40;

export type Traffic = {
  /** Counts what people ask for until it is answered; a stream is open all day, and nobody waits for its end. */
  count: RequestHandler;
  /** Does what is behind and must catch up. */
  catchUp<T>(work: () => Promise<T>): Promise<T>;
  /** The next turn of work that nobody waits for: at once, or after a pause while many wait for an answer or something is behind. */
  giveWay(): Promise<void>;
};

export function createTraffic(): Traffic {
  let answering = 0;
  let behind = 0;
  let turn = Promise.resolve();
  return {
    count(request, response, next) {
      if (!isStream(request)) {
        answering++;
        response.once('close', () => answering--);
      }
      next();
    },
    async catchUp(work) {
      behind++;
      try {
        return await work();
      } finally {
        behind--;
      }
    },
    giveWay() {
      turn = turn.then(() => (answering >= MANY || behind > 0 ? delay(PAUSE_MS) : undefined));
      return turn;
    },
  };
}
