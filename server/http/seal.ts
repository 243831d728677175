import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Listo } from '../listo';

const ALGORITHM = 'aes-256-gcm';
const IV_BYTES = 12;

/** What is sealed was sealed with another key, or has been changed. */
export class NotSealedHere extends Error {}

const keys = new Map<string, Promise<Buffer>>();

/**
 * A key of its own in the data folder, for a Listo whose environment names none: made once, readable by its owner alone.
 * Who runs several processes on several machines names one in the environment.
 */
async function readOwnKey(dataDir: string): Promise<Buffer> {
  const file = path.join(dataDir, 'seal.key');
  await mkdir(dataDir, { recursive: true });
  // Of two processes that begin at once the first one's key is used by both.
  await writeFile(file, randomBytes(32).toString('base64'), { flag: 'wx', mode: 0o600 }).catch(
    (error: unknown) => {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    },
  );
  return Buffer.from(await readFile(file, 'utf8'), 'base64');
}

function readKey({ config: { LISTO_SEAL_KEY, LISTO_DATA_DIR } }: Pick<Listo, 'config'>): Promise<Buffer> {
  if (LISTO_SEAL_KEY !== undefined) return Promise.resolve(Buffer.from(LISTO_SEAL_KEY, 'base64'));
  const known = keys.get(LISTO_DATA_DIR) ?? readOwnKey(LISTO_DATA_DIR);
  keys.set(LISTO_DATA_DIR, known);
  return known;
}

/** Names a key without giving it away: a prefix of its SHA-256. */
const nameOf = (key: Buffer): string => createHash('sha256').update(key).digest('hex').slice(0, 8);

/**
 * Encrypts a secret for the database (AES-256-GCM, NIST SP 800-38D, a random nonce of 96 bits).
 * @param about what the secret belongs to: it opens under the same words alone, so that a row cannot be exchanged
 * @returns version, name of the key, nonce, tag and cipher text, with full stops between
 */
export async function seal(listo: Pick<Listo, 'config'>, about: string, secret: string): Promise<string> {
  const key = await readKey(listo);
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv(ALGORITHM, key, iv).setAAD(Buffer.from(about));
  const sealed = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  const parts = [iv, cipher.getAuthTag(), sealed].map((part) => part.toString('base64url'));
  return ['1', nameOf(key), ...parts].join('.');
}

/** @throws NotSealedHere */
export async function unseal(listo: Pick<Listo, 'config'>, about: string, sealed: string): Promise<string> {
  const key = await readKey(listo);
  const [version, name, ...parts] = sealed.split('.');
  if (version !== '1' || name !== nameOf(key) || parts.length !== 3)
    throw new NotSealedHere('sealed with another key');
  const [iv, tag, text] = parts.map((part) => Buffer.from(part, 'base64url')) as [Buffer, Buffer, Buffer];
  try {
    const decipher = createDecipheriv(ALGORITHM, key, iv, { authTagLength: 16 });
    decipher.setAAD(Buffer.from(about)).setAuthTag(tag);
    return Buffer.concat([decipher.update(text), decipher.final()]).toString('utf8');
  } catch {
    throw new NotSealedHere('changed since it was sealed');
  }
}
