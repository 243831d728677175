import { setTimeout as delay } from 'node:timers/promises';
import type { Sequelize } from 'sequelize';
import { codeOf, isDeadlock, isGone, isUncertain, wasRefused } from './failures';
import { nodesOf, noticing } from './nodes';

/** How often what met another transaction is done again, and what found its node gone. */
const DEADLOCK_TRIES = 10;
const GONE_TRIES = 4;
/** Waits double from here, by chance, so that two that met do not meet again. */
const FIRST_PAUSE_MS = 4;
const GONE_PAUSE_MS = 150;
const LONGEST_PAUSE_MS = 1_000;

const pause = (firstMs: number, tries: number): Promise<void> =>
  delay(Math.min(LONGEST_PAUSE_MS, firstMs * 2 ** (tries - 1)) * (0.5 + Math.random()));

/** Does something again that met another transaction, or whose node went before it could have been done. */
async function again<T>(
  sequelize: Sequelize,
  work: () => Promise<T>,
  mayBeGone: (error: unknown) => boolean,
): Promise<T> {
  const nodes = nodesOf(sequelize);
  for (let tries = 1; ; tries++) {
    try {
      return await noticing(nodes, work);
    } catch (error) {
      if (isDeadlock(error) && tries < DEADLOCK_TRIES) await pause(FIRST_PAUSE_MS, tries);
      else if (mayBeGone(error) && tries < GONE_TRIES) await pause(GONE_PAUSE_MS, tries);
      else throw error;
    }
  }
}

/** Reads, and transactions as a whole: what broke before it was to be committed has left nothing. */
export function begunAgain<T>(sequelize: Sequelize, work: () => Promise<T>): Promise<T> {
  return again(sequelize, work, (error) => isGone(codeOf(error)) && !isUncertain(error));
}

/** A statement that writes and stands alone: whether it was done is not known where its connection breaks. */
export function doneAgain<T>(sequelize: Sequelize, work: () => Promise<T>): Promise<T> {
  return again(sequelize, work, wasRefused);
}
