import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';

/** After so many failures under one key it waits; other keys are not touched. */
const MOST_FAILURES = 8;
const WAIT_MS = 15 * 60_000;

/**
 * Counts a try before it is looked at, so that many at once are as many.
 * @param key what is tried: a hash of at most 64 characters
 * @throws ProblemError tooManyTries
 */
export async function countTry({ db, clock }: Listo, key: string): Promise<void> {
  const now = clock.now();
  await db.run(
    `INSERT INTO sign_in_failures (\`key\`, count, lastAt) VALUES (:key, 1, :now)
     ON DUPLICATE KEY UPDATE count = IF(lastAt < :since, 1, count + 1), lastAt = IF(count > :most, lastAt, :now)`,
    { key, now, since: now - WAIT_MS, most: MOST_FAILURES },
  );
  const tries = await db.tables.signInFailures.findOne({ key });
  if (tries !== null && tries.count > MOST_FAILURES) throw new ProblemError('tooManyTries');
}

/** What was tried has come right: the next try is the first again. */
export async function forgetTries({ db }: Listo, key: string): Promise<void> {
  await db.tables.signInFailures.remove({ key });
}
