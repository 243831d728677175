import type { Transaction } from 'sequelize';
import { nanoid } from 'nanoid';
import { isDuplicate, isUncertain } from '../database/failures';
import { nodesOf } from '../database/nodes';
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

/** What is kept where a change answers nothing. */
const NOTHING = { isNothing: true };

/** The kept answer, as what is in it; null where none is. */
async function findKept(
  listo: Listo,
  { id, idempotencyKey, request }: Actor,
): Promise<{ answer: unknown } | null> {
  const kept = await listo.db.tables.keptAnswers.findOne({ personId: id, key: idempotencyKey! });
  if (kept && kept.request !== null && request !== undefined && kept.request !== request)
    throw new ProblemError('keyUsed');
  if (!kept) return null;
  const { isNothing } = (kept.answer ?? {}) as { isNothing?: boolean };
  return { answer: isNothing ? undefined : kept.answer };
}

/** So often a change is begun anew whose commit nobody answered for, after a look whether it is there. */
const UNCERTAIN_TRIES = 3;

/**
 * Runs a change in one transaction and lets what follows from it begin after the commit. With an idempotency key
 * its answer is kept in that transaction, and the same call again gets the kept answer. On a cluster each change has
 * such a key: where its node goes as it commits, the kept answer tells whether the others have it.
 */
export async function change<T>(
  listo: Listo,
  given: Actor,
  work: (tx: Transaction) => Promise<T>,
): Promise<T> {
  const { isCluster } = nodesOf(listo.db.sequelize);
  const actor =
    given.idempotencyKey === undefined && isCluster ? { ...given, idempotencyKey: `own-${nanoid()}` } : given;
  for (let tries = 1; ; tries++) {
    const kept = tries > 1 || given.idempotencyKey !== undefined ? await findKept(listo, actor) : null;
    if (kept) return kept.answer as T;
    try {
      return await changeOnce(listo, actor, work);
    } catch (error) {
      if (!isUncertain(error) || actor.idempotencyKey === undefined || tries === UNCERTAIN_TRIES) throw error;
    }
  }
}

async function changeOnce<T>(listo: Listo, actor: Actor, work: (tx: Transaction) => Promise<T>): Promise<T> {
  const { idempotencyKey: key } = actor;
  try {
    const answer = await listo.db.transaction(async (tx) => {
      if (actor.keyId !== undefined) markByKey(tx, actor.keyId);
      const result = await work(tx);
      if (key !== undefined)
        await listo.db.tables.keptAnswers.insert(
          {
            personId: actor.id,
            key,
            at: listo.clock.now(),
            answer: result ?? NOTHING,
            request: actor.request ?? null,
          },
          tx,
        );
      return result;
    });
    listo.wake();
    return answer;
  } catch (error) {
    // The same call ran beside this one and was first.
    const kept = key !== undefined && isDuplicate(error) ? await findKept(listo, actor) : null;
    if (!kept) throw error;
    return kept.answer as T;
  }
}
