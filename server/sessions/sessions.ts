import { hash, verify } from '@node-rs/argon2';
import { createHash } from 'node:crypto';
import { checkPassword as judgePassword, toAddress } from '../../core/identity';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { mayUsePassword } from '../../core/signOn';
import { readSignOn } from './access';
import { checkFactor } from './factor';
import { countTry, forgetTries } from './tries';
import type { SessionWay } from './model';
import { createToken, hashToken } from './token';
import { forgetViewers } from './viewer';

const DAY_MS = 86_400_000;
const SESSION_MS = 14 * DAY_MS;
/** A hash of nothing anyone types, verified where no such person exists, so that timing does not tell names. */
const decoyHash = hash(createToken());

/** argon2id, with the library's defaults (19 MiB, two passes: OWASP's minimum). */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

/** Begins a session: its id, and the token for its cookie. */
export async function beginSession(
  listo: Listo,
  personId: string,
  { userAgent, way }: { userAgent: string; way: SessionWay },
): Promise<{ id: string; token: string }> {
  const token = createToken();
  const now = listo.clock.now();
  const id = hashToken(token);
  await listo.db.tables.sessions.insert({
    ...{ id, way },
    personId,
    createdAt: now,
    seenAt: now,
    expiresAt: now + SESSION_MS,
    userAgent: userAgent.slice(0, 300),
  });
  return { id, token };
}

function failureKey(email: string, address: string): string {
  return createHash('sha256')
    .update(`${toAddress(email) ?? ''}\n${address}`)
    .digest('hex');
}

/** `isHere`: they are signed in already, and asked again for the password alone. */
type Credentials = { email: string; password: string; code?: string | undefined; isHere?: boolean };

/**
 * Checks a name and a password, and the code of who has a second factor. Failures count by name and address together, so
 * nobody can lock a person out from elsewhere; a wrong code counts like a wrong password.
 * @returns who it is
 */
export async function checkPassword(
  listo: Listo,
  { email, password, code, isHere }: Credentials,
  address: string,
): Promise<string> {
  const { db } = listo;
  const key = failureKey(email, address);
  await countTry(listo, key);

  const known = toAddress(email);
  const person = known === null ? null : await db.tables.people.findOne({ email: known, leftAt: null });
  const isRight = await verify(person?.passwordHash ?? (await decoyHash), password);
  if (person?.passwordHash && isRight) {
    if (!mayUsePassword(await readSignOn(listo), person.id)) throw new ProblemError('passwordsOff');
    if (!isHere) await checkFactor(listo, person.id, code);
    await forgetTries(listo, key);
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
  if (!mayUsePassword(await readSignOn(listo), id)) throw new ProblemError('passwordsOff');
  // Somebody else may sit there: the old one is asked for, as at the sign-in.
  if (person.passwordHash)
    await checkPassword(listo, { email: person.email, password: current, isHere: true }, address);
  refuseWeak(password, [person.name, person.email]);
  await tables.people.update({ id }, { passwordHash: await hashPassword(password) });
  await endOtherSessions(listo, id, sessionId);
}
