import { timingSafeEqual } from 'node:crypto';
import { findKeyProblem, parseApiKey } from '../../core/programs';
import type { Database } from '../database/database';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { hashToken } from '../sessions/token';
import { readClosedTeams, type SignedIn } from '../sessions/viewer';
import type { ApiKeyRow, ProgramRow } from './model';

/** A process relies for this long on what it has read of a key. */
const KNOWN_MS = 1_000;
const MOST_KNOWN = 10_000;
/** The last use of a key is written at most this often. */
const USED_EVERY_MS = 60_000;

type Known = { program: ProgramRow; key: ApiKeyRow; siteId: string; until: number };
const known = new WeakMap<Database, Map<string, Known>>();

/** Makes this process read keys and programs anew. */
export const forgetKeys = ({ db }: Listo): void => void known.delete(db);

async function readKey(listo: Listo, keyId: string): Promise<Known | null> {
  const keys = known.get(listo.db) ?? new Map<string, Known>();
  const kept = keys.get(keyId);
  if (kept && performance.now() < kept.until) return kept;
  const { tables } = listo.db;
  const key = await tables.apiKeys.findOne({ id: keyId });
  const program = key && (await tables.programs.findOne({ id: key.programId }));
  if (!key || !program) return null;
  // A program stands nowhere; what goes by a place goes by the first one.
  const [site] = await tables.sites.find({}, { order: ['id'], limit: 1 });
  if (keys.size >= MOST_KNOWN) keys.clear();
  known.set(listo.db, keys);
  const read = { program, key, siteId: site?.id ?? '', until: performance.now() + KNOWN_MS };
  keys.set(keyId, read);
  return read;
}

/** Written in the background of the call: a call does not wait for it, and fails without it as little. */
function noteUse(listo: Listo, key: ApiKeyRow, address: string): void {
  const now = listo.clock.now();
  if (key.lastUsedAt !== null && now - key.lastUsedAt < USED_EVERY_MS) return;
  Object.assign(key, { lastUsedAt: now, lastUsedFrom: address });
  void listo.db.tables.apiKeys
    .update({ id: key.id }, { lastUsedAt: now, lastUsedFrom: address.slice(0, 60) })
    .catch((error: unknown) => listo.log.warn(error, 'the use of a key was not noted'));
}

/**
 * The program behind a key, as one that acts.
 * @param address where the call comes from
 * @throws ProblemError badKey where it is unknown; another where it does not work now
 */
export async function findProgram(listo: Listo, words: string, address: string): Promise<SignedIn> {
  const parts = parseApiKey(words);
  const found = parts && (await readKey(listo, parts.id));
  const hash = Buffer.from(hashToken(parts?.secret ?? ''));
  if (!found || !timingSafeEqual(hash, Buffer.from(found.key.secretHash))) throw new ProblemError('badKey');
  const { program, key, siteId } = found;
  const problem = findKeyProblem(program, key, { address, now: listo.clock.now() });
  if (problem) throw new ProblemError(problem);
  noteUse(listo, key, address);
  const { id, name, teams, isAdministrator, mayAskForOthers, mayChange, perMinute } = program;
  return {
    ...{
      id,
      name,
      siteId,
      language: 'en',
      sessionId: `key ${key.id}`,
      teams,
      isAdministrator,
      mayAskForOthers,
      closedTeamIds: await readClosedTeams(listo, program),
    },
    byKey: { id: key.id, mayChange, perMinute, endsAt: key.endsAt },
  };
}
