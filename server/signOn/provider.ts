import type { Configuration, ServerMetadata } from 'openid-client';
import { fetchOut } from '../http/outgoing';
import { unseal } from '../http/seal';
import type { Listo } from '../listo';
import type { ProviderRow } from './model';

/** What a provider says of itself is read anew after this long. */
const KNOWN_MS = 3_600_000;
const PATIENCE_S = 20;

/** What the secret of a provider is sealed under. */
export const aboutSecret = (id: string): string => `sign-on ${id}`;

type Known = { metadata: Promise<ServerMetadata>; until: number };
const known = new WeakMap<Listo['db'], Map<string, Known>>();

/** The stand-in of the demo is named by its path alone. */
const issuerOf = (listo: Listo, { issuer }: ProviderRow): URL => new URL(issuer, listo.address);

/** A provider as it is asked: by the door for calls, with the signature of each token checked wherever it came from. */
async function howToAsk(listo: Listo, provider: ProviderRow) {
  const client = await import('openid-client');
  const { id, sealedSecret } = provider;
  const secret = sealedSecret === null ? undefined : await unseal(listo, aboutSecret(id), sealedSecret);
  return {
    client,
    fetch: fetchOut(listo, { kind: 'signOn', ref: id }) as never,
    proof: secret === undefined ? client.None() : client.ClientSecretBasic(secret),
    // Plainly only where the address is named as such: the door refuses all others.
    isPlain: issuerOf(listo, provider).protocol === 'http:',
  };
}

/** What a provider says of itself (OpenID Connect Discovery 1.0). */
async function discover(listo: Listo, provider: ProviderRow): Promise<ServerMetadata> {
  const { client, fetch, proof, isPlain } = await howToAsk(listo, provider);
  const found = await client.discovery(issuerOf(listo, provider), provider.clientId, {}, proof, {
    [client.customFetch]: fetch,
    // eslint-disable-next-line @typescript-eslint/no-deprecated -- marked so by its authors to be seen: named hosts alone
    ...(isPlain && { execute: [client.allowInsecureRequests] }),
    timeout: PATIENCE_S,
  });
  return found.serverMetadata();
}

function readMetadata(listo: Listo, provider: ProviderRow): Promise<ServerMetadata> {
  const providers = known.get(listo.db) ?? new Map<string, Known>();
  known.set(listo.db, providers);
  const key = `${provider.id} ${provider.version}`;
  const kept = providers.get(key);
  if (kept && performance.now() < kept.until) return kept.metadata;
  const metadata = discover(listo, provider);
  providers.set(key, { metadata, until: performance.now() + KNOWN_MS });
  // One that does not answer is asked again the next time.
  metadata.catch(() => providers.delete(key));
  return metadata;
}

/**
 * A provider, ready to be asked. Its keys are read anew for each sign-in: one that has changed them since the last one is
 * understood at once.
 * @throws where it does not answer, or is another than it is said to be
 */
export async function openProvider(listo: Listo, provider: ProviderRow): Promise<Configuration> {
  const metadata = await readMetadata(listo, provider);
  const { client, fetch, proof, isPlain } = await howToAsk(listo, provider);
  const configuration = new client.Configuration(metadata, provider.clientId, {}, proof);
  configuration[client.customFetch] = fetch;
  configuration.timeout = PATIENCE_S;
  client.enableNonRepudiationChecks(configuration);
  // eslint-disable-next-line @typescript-eslint/no-deprecated -- as above
  if (isPlain) client.allowInsecureRequests(configuration);
  return configuration;
}
