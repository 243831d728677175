import { hash, verify } from '@node-rs/argon2';
import { createHash } from 'node:crypto';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { createToken, hashToken } from './token';
import { forgetViewers } from './viewer';

const DAY_MS = 86_400_000;
const SESSION_MS = 14 * DAY_MS;
/** After this many failures of one name from one address, that pair waits; others are not touched. */
const MOST_FAILURES = 8;
const WAIT_MS = 15 * 60_000;

/** A hash of nothing anyone types, verified where no such person exists, so that timing does not tell names. */
const decoyHash = hash(createToken());

/** argon2id, with the library's defaults (19 MiB, two passes: OWASP's minimum). */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

/** Begins a session and answers the token for its cookie. */
export async function beginSession(listo: Listo, personId: string, userAgent: string): Promise<string> {
  const token = createToken();
  const now = listo.clock.now();
  await listo.db.tables.sessions.insert({
    id: hashToken(token),
    personId,
    createdAt: now,
    seenAt: now,
    expiresAt: now + SESSION_MS,
    userAgent: userAgent.slice(0, 300),
  });
  return token;
}

function failureKey(email: string, address: string): string {
  return createHash('sha256').update(`${email.toLowerCase()}\n${address}`).digest('hex');
}

/**
 * Checks a name and a password. Failures count by name and address together, so nobody can lock a person out from
 * elsewhere.
 */
export async function checkPassword(
  listo: Listo,
  email: string,
  password: string,
  address: string,
): Promise<string> {
  const { db, clock } = listo;
  const key = failureKey(email, address);
  const now = clock.now();
  const failures = await db.tables.signInFailures.findOne({ key });
  const isFresh = failures !== null && now - failures.lastAt < WAIT_MS;
  if (isFresh && failures.count >= MOST_FAILURES) throw new ProblemError('tooManyTries');

  const person = await db.tables.people.findOne({ email, leftAt: null });
  const isRight = await verify(person?.passwordHash ?? (await decoyHash), password);
  if (person?.passwordHash && isRight) {
    await db.tables.signInFailures.remove({ key });
    return person.id;
  }
  await db.tables.signInFailures.insertAll(
    [{ key, count: isFresh ? failures.count + 1 : 1, lastAt: now }],
    undefined,
    {
      updates: ['count', 'lastAt'],
    },
  );
  throw new ProblemError('wrongNameOrPassword');
}

export async function endSession(listo: Listo, personId: string, sessionId: string): Promise<void> {
  const ended = await listo.db.tables.sessions.remove({ id: sessionId, personId });
  forgetViewers(listo);
  if (ended === 0) throw new ProblemError('notFound');
}
