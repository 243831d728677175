import { nanoid, customAlphabet } from 'nanoid';
import type { ProgramBody, ProgramView } from '../../contract/programs';
import { mayAddKey, toApiKey, toNetwork } from '../../core/programs';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { createToken, hashToken } from '../sessions/token';
import type { Changing, UnitOfWork } from '../unitOfWork';
import { forgetKeys } from './key';
import type { ProgramRow } from './model';

const createKeyId = customAlphabet('0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz', 10);

/** All accounts of programs with their keys, the newest key first. */
export async function listPrograms({ db }: Listo): Promise<ProgramView[]> {
  const { tables } = db;
  const programs = await tables.programs.find({}, { order: ['name', 'id'] });
  const keys = await tables.apiKeys.find({}, { order: [['createdAt', 'DESC']] });
  const owners = await tables.people.find({ id: programs.map(({ ownerId }) => ownerId) });
  return programs.map(({ ownerId, ...program }) => {
    const owner = owners.find(({ id }) => id === ownerId);
    return {
      ...program,
      owner: owner
        ? { id: owner.id, name: owner.name, goesFirst: owner.goesFirst, hasLeft: owner.leftAt !== null }
        : null,
      keys: keys
        .filter(({ programId }) => programId === program.id)
        .map(({ programId: _programId, secretHash: _secretHash, ...key }) => key),
    };
  });
}

/** The account as it is stored: networks in their one form. @throws ProblemError with all that does not fit */
async function check({ listo, tx }: UnitOfWork, body: ProgramBody): Promise<ProgramBody> {
  const { tables } = listo.db;
  const fields: { field: string; code: string }[] = [];
  const networks = body.networks.map(toNetwork);
  networks.forEach((network, i) => {
    if (network === null) fields.push({ field: `networks.${i}`, code: 'noNetwork' });
  });
  if (!(await tables.people.findOne({ id: body.ownerId, leftAt: null }, tx)))
    fields.push({ field: 'ownerId', code: 'notAChoice' });
  const teams = await tables.teams.find({}, { transaction: tx, attributes: ['id'] });
  body.teams.forEach(({ teamId }, i) => {
    const isTwice = body.teams.findIndex((other) => other.teamId === teamId) < i;
    if (isTwice || !teams.some(({ id }) => id === teamId))
      fields.push({ field: `teams.${i}`, code: isTwice ? 'twice' : 'notAChoice' });
  });
  if (body.endsAt !== null && body.endsAt <= listo.clock.now())
    fields.push({ field: 'endsAt', code: 'inThePast' });
  if (fields.length > 0) throw new ProblemError('fieldsNotValid', { fields });
  return { ...body, networks: networks as string[] };
}

export function createProgram(
  { listo, viewer, actor }: Changing,
  body: ProgramBody,
): Promise<{ id: string }> {
  return change(listo, actor, async (tx) => {
    const id = `program-${nanoid(12)}`;
    const program = await check({ listo, tx }, body);
    await listo.db.tables.programs.insert({ ...program, id, createdAt: listo.clock.now(), version: 1 }, tx);
    const data = { programId: id, name: body.name };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'programMade', data });
    return { id };
  });
}

async function requireProgram({ listo, tx }: UnitOfWork, id: string): Promise<ProgramRow> {
  const row = await listo.db.tables.programs.findOne({ id }, tx, true);
  if (!row) throw new ProblemError('notFound');
  return row;
}

/** Which fields of an account differ, from what to what. */
function findChanges(before: ProgramRow, after: ProgramBody): Record<string, { from: unknown; to: unknown }> {
  const names = Object.keys(after) as (keyof ProgramBody)[];
  return Object.fromEntries(
    names
      .filter((name) => JSON.stringify(before[name]) !== JSON.stringify(after[name]))
      .map((name) => [name, { from: before[name], to: after[name] }]),
  );
}

export async function updateProgram(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: ProgramBody & { version: number },
): Promise<{ version: number }> {
  const answer = await change(listo, actor, async (tx) => {
    const before = await requireProgram({ listo, tx }, id);
    if (before.version !== version) throw new ProblemError('stale');
    const isSameEnd = before.endsAt === body.endsAt;
    // An end that has passed may stay: it is the reason why nothing works.
    const program = await check({ listo, tx }, isSameEnd ? { ...body, endsAt: null } : body);
    const after = { ...program, endsAt: body.endsAt };
    const next = version + 1;
    await listo.db.tables.programs.update({ id }, { ...after, version: next }, tx);
    await appendSetting(
      { listo, tx },
      {
        ...{ by: viewer.id, type: 'programChanged', changes: findChanges(before, after) },
        data: { programId: id, name: body.name },
      },
    );
    return { version: next };
  });
  forgetKeys(listo);
  return answer;
}

/** Makes a key. Its secret is in the answer alone; what is kept of it is a hash. */
export function createKey(
  { listo, viewer, actor }: Changing,
  programId: string,
  endsAt: number | null,
): Promise<{ id: string; key: string }> {
  // The answer is not kept for a repeat: a secret would lie in the table of kept answers.
  return change(listo, { id: actor.id }, async (tx) => {
    const { tables } = listo.db;
    const now = listo.clock.now();
    const program = await requireProgram({ listo, tx }, programId);
    if (endsAt !== null && endsAt <= now)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'endsAt', code: 'inThePast' }] });
    if (!mayAddKey(await tables.apiKeys.find({ programId }, { transaction: tx }), now))
      throw new ProblemError('twoKeys');
    const [id, secret] = [createKeyId(), createToken()];
    await tables.apiKeys.insert(
      {
        ...{ id, programId, secretHash: hashToken(secret), createdAt: now, endsAt },
        ...{ revokedAt: null, lastUsedAt: null, lastUsedFrom: null },
      },
      tx,
    );
    const data = { programId, name: program.name, keyOf: id };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'apiKeyMade', data });
    return { id, key: toApiKey({ id, secret }) };
  });
}

export async function revokeKey(
  { listo, viewer, actor }: Changing,
  programId: string,
  keyId: string,
): Promise<typeof OK> {
  const answer = await change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const program = await requireProgram({ listo, tx }, programId);
    const key = await tables.apiKeys.findOne({ id: keyId, programId }, tx, true);
    if (!key) throw new ProblemError('notFound');
    if (key.revokedAt !== null) return OK;
    await tables.apiKeys.update({ id: keyId }, { revokedAt: listo.clock.now() }, tx);
    const data = { programId, name: program.name, keyOf: keyId };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'apiKeyRevoked', data });
    return OK;
  });
  forgetKeys(listo);
  return answer;
}
