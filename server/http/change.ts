import type { Transaction } from 'sequelize';
import { isDuplicate } from '../database/database';
import { markByKey } from '../journal/chain';
import type { Listo } from '../listo';
import { ProblemError } from './problems';

/** Who does something, and (for a POST that may come twice) under which key. */
export type Actor = {
  id: string;
  idempotencyKey?: string;
  /** What the request under the key says, as a hash: another one under the same key is refused. */
  request?: string;
  /** The key of the program that does it. */
  keyId?: string;
};

async function findKept(listo: Listo, { id, idempotencyKey, request }: Actor): Promise<unknown> {
  const kept = await listo.db.tables.keptAnswers.findOne({ personId: id, key: idempotencyKey! });
  if (kept && kept.request !== null && request !== undefined && kept.request !== request)
    throw new ProblemError('keyUsed');
  return kept?.answer;
}

/**
 * Runs a change in one transaction and lets what follows from it begin after the commit. With an idempotency key
 * its answer is kept in that transaction, and the same call again gets the kept answer.
 */
export async function change<T>(
  listo: Listo,
  actor: Actor,
  work: (tx: Transaction) => Promise<T>,
): Promise<T> {
  const { idempotencyKey: key } = actor;
  if (key !== undefined) {
    const kept = await findKept(listo, actor);
    if (kept !== undefined) return kept as T;
  }
  try {
    const answer = await listo.db.transaction(async (tx) => {
      if (actor.keyId !== undefined) markByKey(tx, actor.keyId);
      const result = await work(tx);
      if (key !== undefined)
        await listo.db.tables.keptAnswers.insert(
          { personId: actor.id, key, at: listo.clock.now(), answer: result, request: actor.request ?? null },
          tx,
        );
      return result;
    });
    listo.wake();
    return answer;
  } catch (error) {
    // The same call ran beside this one and was first.
    const kept = key !== undefined && isDuplicate(error) ? await findKept(listo, actor) : undefined;
    if (kept === undefined) throw error;
    return kept as T;
  }
}
