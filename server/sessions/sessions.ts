import { hash, verify } from '@node-rs/argon2';
import { createHash } from 'node:crypto';
import { checkPassword as judgePassword, toAddress } from '../../core/identity';
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
  return createHash('sha256')
    .update(`${toAddress(email) ?? ''}\n${address}`)
    .digest('hex');
}

/**
 * Checks a name and a password. Failures count by name and address together, so nobody can lock a person out from
 * elsewhere.
 */
export async function checkPassword(
  listo: Listo,
  { email, password }: { email: string; password: string },
  address: string,
): Promise<string> {
  const { db, clock } = listo;
  const key = failureKey(email, address);
  const now = clock.now();
  // Counted before it is looked at, so that many at once are as many.
  await db.run(
    `INSERT INTO sign_in_failures (\`key\`, count, lastAt) VALUES (:key, 1, :now)
     ON DUPLICATE KEY UPDATE count = IF(lastAt < :since, 1, count + 1), lastAt = IF(count > :most, lastAt, :now)`,
    { key, now, since: now - WAIT_MS, most: MOST_FAILURES },
  );
  const tries = await db.tables.signInFailures.findOne({ key });
  if (tries !== null && tries.count > MOST_FAILURES) throw new ProblemError('tooManyTries');

  const known = toAddress(email);
  const person = known === null ? null : await db.tables.people.findOne({ email: known, leftAt: null });
  const isRight = await verify(person?.passwordHash ?? (await decoyHash), password);
  if (person?.passwordHash && isRight) {
    await db.tables.signInFailures.remove({ key });
    return person.id;
  }
  throw new ProblemError('wrongNameOrPassword');
}

export async function endSession(listo: Listo, personId: string, sessionId: string): Promise<void> {
  const ended = await listo.db.tables.sessions.remove({ id: sessionId, personId });
  forgetViewers(listo);
  if (ended === 0) throw new ProblemError('notFound');
}

/** Ends all sessions of someone but one. @returns how many */
export async function endOtherSessions(listo: Listo, personId: string, sessionId: string): Promise<number> {
  const sessions = await listo.db.tables.sessions.find({ personId });
  for (const { id } of sessions.filter((session) => session.id !== sessionId))
    await listo.db.tables.sessions.remove({ id, personId });
  forgetViewers(listo);
  return sessions.length - 1;
}

/** Refuses a password that is too easy to guess, of someone of whom this is known. */
export function refuseWeak(password: string, known: string[]): void {
  const problem = judgePassword(password, known);
  if (problem) throw new ProblemError('fieldsNotValid', { fields: [{ field: 'password', code: problem }] });
}

/** Takes another password in place of the one that its person gives; all their other sessions end. */
export async function changePassword(
  listo: Listo,
  { id, sessionId, address }: { id: string; sessionId: string; address: string },
  { current, password }: { current: string; password: string },
): Promise<void> {
  const { tables } = listo.db;
  const person = (await tables.people.findOne({ id, leftAt: null }))!;
  // Somebody else may sit there: the old one is asked for, as at the sign-in.
  if (person.passwordHash) await checkPassword(listo, { email: person.email, password: current }, address);
  refuseWeak(password, [person.name, person.email]);
  await tables.people.update({ id }, { passwordHash: await hashPassword(password) });
  await endOtherSessions(listo, id, sessionId);
}
