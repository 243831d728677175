import { nanoid } from 'nanoid';
import { domainToASCII } from 'node:url';
import type { AnswerOf } from '../../contract/endpoint';
import type { api } from '../../contract';
import type { ProviderBody } from '../../contract/signOn';
import type { SignOnSettings } from '../../core/signOn';
import { change } from '../http/change';
import { mayCallOut } from '../http/outgoing';
import { ProblemError } from '../http/problems';
import { seal } from '../http/seal';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { readSignOn, SIGN_ON_SETTING } from '../sessions/access';
import { forgetViewers } from '../sessions/viewer';
import type { Changing, UnitOfWork } from '../unitOfWork';
import type { ProviderRow } from './model';
import { aboutSecret, openProvider } from './provider';

/** A name of the internet with at least one full stop (RFC 1035, 2.3.1; beyond ASCII in its form of RFC 5890). */
const DOMAIN = /^(?=.{4,190}$)([a-z0-9]([a-z0-9-]*[a-z0-9])?\.)+[a-z][a-z0-9-]*$/;

/** A domain as addresses have it; null: it is none. */
function toDomain(words: string): string | null {
  const domain = domainToASCII(words.trim().replace(/^@/, '')).toLowerCase();
  return DOMAIN.test(domain) ? domain : null;
}

type Fault = { field: string; code: string };

/** The provider as it is stored. @throws ProblemError with all that does not fit */
async function check({ listo, tx }: UnitOfWork, body: ProviderBody, id: string): Promise<ProviderBody> {
  const { tables } = listo.db;
  const domains = body.domains.map(toDomain);
  const others = (await tables.signOnProviders.find({}, { transaction: tx })).filter((row) => row.id !== id);
  const teams = await tables.teams.find({}, { transaction: tx });
  const fields: Fault[] = [
    ...(mayCallOut(listo, body.issuer) ? [] : [{ field: 'issuer', code: 'addressNotAllowed' }]),
    ...(domains.length === 0 ? [{ field: 'domains', code: 'missing' }] : []),
    ...domains.flatMap((domain, i) => {
      const field = `domains.${i}`;
      if (domain === null) return [{ field, code: 'malformed' }];
      if (domains.indexOf(domain) < i) return [{ field, code: 'twice' }];
      return others.some((other) => other.domains.includes(domain)) ? [{ field, code: 'taken' }] : [];
    }),
    ...((await tables.sites.findOne({ id: body.siteId }, tx))
      ? []
      : [{ field: 'siteId', code: 'notAChoice' }]),
    ...body.groupTable.flatMap(({ teamId }, i) =>
      teams.some((team) => team.id === teamId) ? [] : [{ field: `groupTable.${i}`, code: 'notAChoice' }],
    ),
    ...(body.groupTable.length > 0 && body.groupsClaim === ''
      ? [{ field: 'groupsClaim', code: 'missing' }]
      : []),
  ];
  if (fields.length > 0) throw new ProblemError('fieldsNotValid', { fields });
  return { ...body, domains: domains as string[] };
}

/** Absent: as before. Empty: none. */
async function sealSecret(
  listo: Listo,
  id: string,
  secret: string | undefined,
): Promise<Pick<ProviderRow, 'sealedSecret'> | Record<string, never>> {
  if (secret === undefined) return {};
  return { sealedSecret: secret === '' ? null : await seal(listo, aboutSecret(id), secret) };
}

/** Adds a provider. */
export function createProvider(
  { listo, viewer, actor }: Changing,
  { secret, ...body }: ProviderBody & { secret?: string | undefined },
): Promise<{ id: string }> {
  return change(listo, actor, async (tx) => {
    const id = nanoid(12);
    const checked = await check({ listo, tx }, body, id);
    const row = { sealedSecret: null, ...(await sealSecret(listo, id, secret)), ...checked, id, version: 1 };
    await listo.db.tables.signOnProviders.insert(row, tx);
    const data = { providerId: id, name: body.name };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'providerMade', data });
    return { id };
  });
}

type Changed = ProviderBody & { secret?: string | undefined; version: number };

/** Changes a provider. @throws ProblemError stale, where somebody else has meanwhile */
export function updateProvider(
  { listo, viewer, actor }: Changing,
  id: string,
  { secret, version, ...body }: Changed,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { signOnProviders } = listo.db.tables;
    const before = await signOnProviders.findOne({ id }, tx, true);
    if (!before) throw new ProblemError('notFound');
    if (before.version !== version) throw new ProblemError('stale');
    const checked = await check({ listo, tx }, body, id);
    if (!checked.isOn) await requireWayIn({ listo, tx }, id);
    // A subject is one of its issuer alone (OpenID Connect Core 1.0, 2): at another nobody is known.
    if (before.issuer !== checked.issuer) await listo.db.tables.signOnSubjects.remove({ providerId: id }, tx);
    await signOnProviders.update(
      { id },
      { ...checked, ...(await sealSecret(listo, id, secret)), version: version + 1 },
      tx,
    );
    const data = { providerId: id, name: body.name };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'providerChanged', data });
    return { version: version + 1 };
  });
}

/** Takes a provider away; the people who came by it stay, and so do their places in teams. */
export async function removeProvider({ listo, viewer, actor }: Changing, id: string): Promise<typeof OK> {
  const { tables } = listo.db;
  await change(listo, actor, async (tx) => {
    const before = await tables.signOnProviders.findOne({ id }, tx, true);
    if (!before) throw new ProblemError('notFound');
    await requireWayIn({ listo, tx }, id);
    await tables.signOnProviders.remove({ id }, tx);
    await tables.signOnSubjects.remove({ providerId: id }, tx);
    const data = { providerId: id, name: before.name };
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'providerRemoved', data });
  });
  return OK;
}

/** @throws ProblemError lastWayIn where no provider is on but the one that goes */
async function requireAnother({ listo, tx }: UnitOfWork, id: string | null): Promise<void> {
  const on = await listo.db.tables.signOnProviders.find({ isOn: true }, { transaction: tx });
  if (!on.some((provider) => provider.id !== id)) throw new ProblemError('lastWayIn');
}

/** Refuses to leave an organisation without passwords and without a provider. `id`: the one that goes. */
async function requireWayIn({ listo, tx }: UnitOfWork, id: string): Promise<void> {
  if ((await readSignOn(listo, tx)).passwordsOnlyOf !== null) await requireAnother({ listo, tx }, id);
}

/**
 * Sets who may have a password and of whom a second factor is asked.
 * @throws ProblemError lastWayIn: nobody could come in any more; fieldsNotValid: who is to have one is no administrator
 *   with a password
 */
export async function setSignOn(
  { listo, viewer, actor }: Changing,
  settings: SignOnSettings,
): Promise<typeof OK> {
  const { tables } = listo.db;
  const { passwordsOnlyOf } = settings;
  await change(listo, actor, async (tx) => {
    if (passwordsOnlyOf !== null) {
      await requireAnother({ listo, tx }, null);
      const of = { id: passwordsOnlyOf, leftAt: null, isAdministrator: true };
      const person = await tables.people.findOne(of, tx);
      if (!person?.passwordHash)
        throw new ProblemError('fieldsNotValid', {
          fields: [{ field: 'passwordsOnlyOf', code: 'notAChoice' }],
        });
    }
    await tables.settings.remove({ name: SIGN_ON_SETTING }, tx);
    await tables.settings.insert({ name: SIGN_ON_SETTING, value: settings }, tx);
    await appendSetting(
      { listo, tx },
      { by: viewer.id, type: 'signOnSet', data: { only: passwordsOnlyOf ?? '' } },
    );
  });
  forgetViewers(listo);
  return OK;
}

/** All that is set of signing in. */
export async function readSignOnPage(listo: Listo): Promise<AnswerOf<typeof api.signOn.get>> {
  const { tables, select } = listo.db;
  const rows = await tables.signOnProviders.find({}, { order: ['name', 'id'] });
  const counts = await select<{ providerId: string; people: number }>(
    'SELECT providerId, COUNT(*) AS people FROM sign_on_subjects GROUP BY providerId',
  );
  const emergency = await select<{ id: string; name: string }>(
    'SELECT id, name FROM people WHERE isAdministrator AND leftAt IS NULL AND passwordHash IS NOT NULL ORDER BY name, id',
  );
  const providers = rows.map(({ sealedSecret, ...row }) => ({
    ...row,
    hasSecret: sealedSecret !== null,
    people: counts.find(({ providerId }) => providerId === row.id)?.people ?? 0,
  }));
  const returnAddress = `${listo.address}/sign-on/return`;
  return { providers, settings: await readSignOn(listo), emergency, returnAddress };
}

/** So much of an error is shown. */
const ERROR_LENGTH = 300;

/** Asks a provider what it says of itself. */
export async function checkProvider(
  listo: Listo,
  id: string,
): Promise<{ error: string | null; endsSessions: boolean }> {
  const provider = await listo.db.tables.signOnProviders.findOne({ id });
  if (!provider) throw new ProblemError('notFound');
  try {
    const configuration = await openProvider(listo, provider);
    const { end_session_endpoint: end } = configuration.serverMetadata();
    return { error: null, endsSessions: end !== undefined };
  } catch (error) {
    const { message, cause } = error as Error;
    const words = cause instanceof Error ? `${message}: ${cause.message}` : message;
    return { error: words.slice(0, ERROR_LENGTH), endsSessions: false };
  }
}
