import { Secret, TOTP } from 'otpauth';
import { customAlphabet } from 'nanoid';
import { ProblemError } from '../http/problems';
import { seal, unseal } from '../http/seal';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import type { UnitOfWork } from '../unitOfWork';
import type { SecondFactorRow } from './model';
import { hashToken } from './token';
import { countTry, forgetTries } from './tries';
import { forgetViewers } from './viewer';

/** As every program for codes does it: SHA-1, six digits, steps of 30 s (RFC 6238, 4 and 5.2). */
const STEP_S = 30;
const DIGITS = 6;
/** So many steps before and after are taken too: clocks differ, and typing takes time (RFC 6238, 6). */
const WINDOW = 1;
/** 160 bits, as RFC 4226 recommends (4, R6). */
const SECRET_BYTES = 20;
const SPARES = 8;
/** Without letters that are mistaken for each other. */
const createSpare = customAlphabet('abcdefghjkmnpqrstuvwxyz23456789', 10);

const aboutFactor = (personId: string): string => `second factor ${personId}`;
const toTotp = (secret: Secret, account = ''): TOTP =>
  new TOTP({ issuer: 'Listo', label: account, secret, algorithm: 'SHA1', digits: DIGITS, period: STEP_S });

/**
 * The step of time that a code belongs to; null: it is no code of now.
 * @param secret in Base32 (RFC 4648)
 * @param at `now`: ms since 1970. `digits` of a code: six everywhere but in the examples of RFC 6238
 */
export function findStep(
  secret: string,
  code: string,
  { now, digits = DIGITS }: { now: number; digits?: number },
): number | null {
  const totp = new TOTP({ secret: Secret.fromBase32(secret), algorithm: 'SHA1', digits, period: STEP_S });
  const delta = totp.validate({ token: code, timestamp: now, window: WINDOW });
  return delta === null ? null : Math.floor(now / 1000 / STEP_S) + delta;
}

const plainCode = (code: string): string => code.replace(/[\s-]/g, '').toLowerCase();

async function readRow({ listo, tx }: UnitOfWork, personId: string): Promise<SecondFactorRow | null> {
  return listo.db.tables.secondFactors.findOne({ personId }, tx, true);
}

/** Takes a code of now, once. @returns whether it was one */
async function takeCode({ listo, tx }: UnitOfWork, row: SecondFactorRow, code: string): Promise<boolean> {
  const { personId } = row;
  const secret = await unseal(listo, aboutFactor(personId), row.sealedSecret);
  const step = findStep(secret, plainCode(code), { now: listo.clock.now() });
  // A code that somebody looked at over a shoulder, or read on the way, is worth nothing any more (RFC 6238, 5.2).
  if (step === null || (row.lastStep !== null && step <= row.lastStep)) return false;
  await listo.db.tables.secondFactors.update({ personId }, { lastStep: step }, tx);
  return true;
}

/** Takes one of the codes for when the factor is lost. @returns whether it was one */
async function takeSpare({ listo, tx }: UnitOfWork, row: SecondFactorRow, code: string): Promise<boolean> {
  const hash = hashToken(plainCode(code));
  if (!row.spareHashes.includes(hash)) return false;
  const spareHashes = row.spareHashes.filter((each) => each !== hash);
  await listo.db.tables.secondFactors.update({ personId: row.personId }, { spareHashes }, tx);
  return true;
}

/**
 * Lets someone go on who has no second factor, or gives a code of it. Wrong codes are counted by person, wherever they come
 * from: six digits are soon tried through, and only who has the first factor gets as far as this.
 * @throws ProblemError codeNeeded, wrongFactorCode, tooManyTries
 */
export async function checkFactor(listo: Listo, personId: string, code: string | undefined): Promise<void> {
  if ((await readFactor(listo, personId)).since === null) return;
  if (code === undefined || code.trim() === '') throw new ProblemError('codeNeeded');
  const key = hashToken(aboutFactor(personId));
  await countTry(listo, key);
  const isRight = await listo.db.transaction(async (tx) => {
    const row = await readRow({ listo, tx }, personId);
    if (!row) return true;
    return (await takeCode({ listo, tx }, row, code)) || takeSpare({ listo, tx }, row, code);
  });
  if (!isRight) throw new ProblemError('wrongFactorCode');
  await forgetTries(listo, key);
}

/** Whether someone has a second factor, since when, and how many codes are left for when it is lost. */
export async function readFactor(
  { db }: Listo,
  personId: string,
): Promise<{ since: number | null; spares: number }> {
  const row = await db.tables.secondFactors.findOne({ personId });
  return { since: row?.confirmedAt ?? null, spares: row?.confirmedAt == null ? 0 : row.spareHashes.length };
}

/**
 * Makes a secret for someone who has no second factor yet; it counts as soon as they give a code of it.
 * @returns the secret in Base32, and the address that programs for codes read (otpauth)
 * @throws ProblemError hasFactor
 */
export async function beginFactor(
  listo: Listo,
  { id, email }: { id: string; email: string },
): Promise<{ secret: string; address: string }> {
  const secret = new Secret({ size: SECRET_BYTES });
  const sealedSecret = await seal(listo, aboutFactor(id), secret.base32);
  await listo.db.transaction(async (tx) => {
    const row = await readRow({ listo, tx }, id);
    if (row?.confirmedAt != null) throw new ProblemError('hasFactor');
    const { secondFactors } = listo.db.tables;
    if (row) await secondFactors.remove({ personId: id }, tx);
    const at = listo.clock.now();
    await secondFactors.insert(
      { personId: id, sealedSecret, at, confirmedAt: null, lastStep: null, spareHashes: [] },
      tx,
    );
  });
  return { secret: secret.base32, address: toTotp(secret, email).toString() };
}

/**
 * Has a second factor count from now on, by a code of it.
 * @returns codes for when it is lost, in this answer alone
 * @throws ProblemError wrongFactorCode
 */
export async function confirmFactor(listo: Listo, personId: string, code: string): Promise<string[]> {
  const spares = Array.from({ length: SPARES }, () => createSpare());
  await listo.db.transaction(async (tx) => {
    const row = await readRow({ listo, tx }, personId);
    if (!row) throw new ProblemError('notFound');
    if (row.confirmedAt !== null) throw new ProblemError('hasFactor');
    if (!(await takeCode({ listo, tx }, row, code))) throw new ProblemError('wrongFactorCode');
    const spareHashes = spares.map(hashToken);
    const confirmedAt = listo.clock.now();
    await listo.db.tables.secondFactors.update({ personId }, { confirmedAt, spareHashes }, tx);
    await appendSetting({ listo, tx }, { by: personId, type: 'factorSet', data: { personId } });
  });
  forgetViewers(listo);
  return spares.map((spare) => spare.replace(/(.{5})(?=.)/, '$1-'));
}

/** Takes someone's second factor away. `by`: who does so: they themselves, or an administrator where it is lost. */
export async function removeFactor(listo: Listo, personId: string, by: string): Promise<void> {
  await listo.db.transaction(async (tx) => {
    if ((await listo.db.tables.secondFactors.remove({ personId }, tx)) === 0)
      throw new ProblemError('notFound');
    await appendSetting({ listo, tx }, { by, type: 'factorRemoved', data: { personId } });
  });
  forgetViewers(listo);
}
