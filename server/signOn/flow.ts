import type { Configuration } from 'openid-client';
import { seal, unseal } from '../http/seal';
import type { Listo } from '../listo';
import { hashToken } from '../sessions/token';
import { forgetViewers } from '../sessions/viewer';
import { arrive, type Said } from './arrive';
import type { ProviderRow } from './model';
import { openProvider } from './provider';

/** A sign-in that takes longer begins anew. */
const FLOW_MS = 10 * 60_000;
/** What it takes to sign out at a provider is kept as long as a session can last. */
const KEPT_MS = 14 * 86_400_000;

/** A sign-in came back that this browser has not begun, or too late, or for the second time. */
export class NotBegunHere extends Error {}

const returnAddress = (listo: Listo): string => `${listo.address}/sign-on/return`;

/** A page of this application, whatever is asked for. */
export const toOwnPage = (back: unknown): string =>
  typeof back === 'string' && /^\/(?![/\\])[^\s\\]{0,400}$/.test(back) ? back : '/ask';

/**
 * Begins a sign-in: authorization code with PKCE, state and nonce (OpenID Connect Core 1.0, 3.1; RFC 7636).
 * @returns where the browser goes, and the state that it has to bring back
 */
export async function beginFlow(
  listo: Listo,
  provider: ProviderRow,
  back: string,
): Promise<{ address: URL; state: string }> {
  const client = await import('openid-client');
  const configuration = await openProvider(listo, provider);
  const [state, nonce, verifier] = [
    client.randomState(),
    client.randomNonce(),
    client.randomPKCECodeVerifier(),
  ];
  const now = listo.clock.now();
  const { signOnFlows } = listo.db.tables;
  await listo.db.run('DELETE FROM sign_on_flows WHERE at < :before', { before: now - FLOW_MS });
  await signOnFlows.insert({
    ...{ id: hashToken(state), providerId: provider.id, nonce, verifier, back, at: now },
  });
  const address = client.buildAuthorizationUrl(configuration, {
    ...{ redirect_uri: returnAddress(listo), scope: 'openid profile email', state, nonce },
    ...{ code_challenge: await client.calculatePKCECodeChallenge(verifier), code_challenge_method: 'S256' },
  });
  return { address, state };
}

/** What the provider says of who has signed in: in the token, and where it has more to say at its own address. */
async function readSaid(
  configuration: Configuration,
  address: URL,
  checks: { state: string; nonce: string; verifier: string },
): Promise<{ said: Said; token: string }> {
  const client = await import('openid-client');
  const tokens = await client.authorizationCodeGrant(configuration, address, {
    ...{ expectedState: checks.state, expectedNonce: checks.nonce, pkceCodeVerifier: checks.verifier },
    idTokenExpected: true,
  });
  const claims = tokens.claims()!;
  const more =
    configuration.serverMetadata().userinfo_endpoint === undefined
      ? {}
      : await client.fetchUserInfo(configuration, tokens.access_token, claims.sub);
  return { said: { ...more, ...claims }, token: tokens.id_token! };
}

/**
 * Ends a sign-in with what the browser brings back: it works once, in the browser that began it.
 * @param query as it stands in the address that the provider led to
 * @param state what the browser was given when it began; undefined: nothing
 * @throws NotBegunHere, NotLetIn, or an error of what the provider answered
 */
export async function finishFlow(
  listo: Listo,
  query: string,
  state: string | undefined,
): Promise<{ personId: string; back: string; remember: (sessionId: string) => Promise<void> }> {
  const { signOnFlows, signOnProviders } = listo.db.tables;
  const address = new URL(`${returnAddress(listo)}?${query}`);
  const said = address.searchParams.get('state');
  if (state === undefined || said !== state) throw new NotBegunHere();
  const flow = await signOnFlows.findOne({ id: hashToken(state) });
  // Whoever takes it out goes on; nobody does so twice.
  if (!flow || (await signOnFlows.remove({ id: flow.id })) === 0) throw new NotBegunHere();
  const provider = await signOnProviders.findOne({ id: flow.providerId, isOn: true });
  if (!provider || listo.clock.now() - flow.at > FLOW_MS) throw new NotBegunHere();
  const configuration = await openProvider(listo, provider);
  const answer = await readSaid(configuration, address, { ...flow, state });
  const personId = await listo.db.transaction((tx) => arrive({ listo, tx }, provider, answer.said));
  forgetViewers(listo);
  listo.wake();
  const remember = async (sessionId: string): Promise<void> => {
    if (!provider.endsThere) return;
    const at = listo.clock.now();
    const sealedToken = await seal(listo, `session ${sessionId}`, answer.token);
    await listo.db.run('DELETE FROM sign_on_sessions WHERE at < :before', { before: at - KEPT_MS });
    await listo.db.tables.signOnSessions.insert({ sessionId, providerId: provider.id, sealedToken, at });
  };
  return { personId, back: flow.back, remember };
}

/**
 * Where a browser goes whose session has ended here, to end it at the provider too (OpenID Connect RP-Initiated Logout 1.0).
 * @returns null: it was begun elsewhere, or the provider knows no such thing, or does not answer
 */
export async function endThere(listo: Listo, sessionId: string): Promise<string | null> {
  const { signOnProviders, signOnSessions } = listo.db.tables;
  const row = await signOnSessions.findOne({ sessionId });
  if (!row) return null;
  await signOnSessions.remove({ sessionId });
  const provider = await signOnProviders.findOne({ id: row.providerId });
  if (!provider) return null;
  try {
    const client = await import('openid-client');
    const configuration = await openProvider(listo, provider);
    if (configuration.serverMetadata().end_session_endpoint === undefined) return null;
    return client.buildEndSessionUrl(configuration, {
      id_token_hint: await unseal(listo, `session ${sessionId}`, row.sealedToken),
      post_logout_redirect_uri: `${listo.address}/`,
    }).href;
  } catch (error) {
    listo.log.warn(error, 'a session could not be ended at its provider');
    return null;
  }
}
