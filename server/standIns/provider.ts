import { Router, urlencoded } from 'express';
import { generateKeyPairSync, randomBytes } from 'node:crypto';
import type { ClientMetadata, JWK, JWKS, KoaContextWithOIDC, Provider } from 'oidc-provider';
import type { Listo } from '../listo';

/** Somebody with an account at a provider: their id there and what it says of them. */
export type Account = { id: string; claims: Record<string, unknown> };
type Of = {
  issuer: string;
  client: ClientMetadata;
  find(id: string): Promise<Account | null>;
  jwks?: JWKS;
};

const CLAIMS = {
  profile: ['name', 'locale', 'groups'],
  email: ['email', 'email_verified'],
};
const LIFE_S = 3_600;

const escape = (words: string): string => words.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);
const page = (title: string, body: string): string =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escape(title)}</title><style>body{font:1rem/1.5 sans-serif;max-width:30rem;margin:3rem auto;padding:0 1rem}
button{display:block;width:100%;margin:.4rem 0;padding:.6rem;font:inherit;text-align:left}</style>
<main><h1>${escape(title)}</h1>${body}</main></html>`;

/** A provider of OpenID Connect with one client, which asks nobody whether they agree: both belong to one organisation. */
export async function createOidcProvider({ issuer, client, find, jwks }: Of): Promise<Provider> {
  const { Provider: OidcProvider } = await import('oidc-provider');
  return new OidcProvider(issuer, {
    clients: [client],
    claims: { openid: ['sub'], ...CLAIMS },
    ...(jwks && { jwks }),
    cookies: { keys: [randomBytes(16).toString('hex')] },
    ttl: { AccessToken: LIFE_S, IdToken: LIFE_S, Interaction: LIFE_S, Session: LIFE_S, Grant: LIFE_S },
    pkce: { required: () => true },
    interactions: { url: (_ctx, { uid }) => `${new URL(issuer).pathname.replace(/\/$/, '')}/who/${uid}` },
    async findAccount(_ctx, id) {
      const account = await find(id);
      return account ? { accountId: id, claims: () => ({ ...account.claims, sub: id }) } : undefined;
    },
    async loadExistingGrant({ oidc }: KoaContextWithOIDC) {
      const grant = new oidc.provider.Grant({
        ...{ clientId: oidc.client!.clientId, accountId: oidc.session!.accountId! },
      });
      grant.addOIDCScope('openid profile email');
      await grant.save();
      return grant;
    },
    features: {
      devInteractions: { enabled: false },
      rpInitiatedLogout: {
        enabled: true,
        logoutSource(ctx, form) {
          const button = '<button form="op.logoutForm" name="logout" value="yes">Sign out</button>';
          ctx.body = page('Sign out here too?', `${form}${button}`);
        },
      },
    },
  });
}

/** What a provider shows of one who could sign in. */
export type Choice = { id: string; name: string; title: string };

/** Asks who somebody is, and takes it as said. */
export function createChoosing(provider: Provider, list: () => Promise<Choice[]>): Router {
  const router = Router();
  router.get('/who/:uid', async (request, response) => {
    await provider.interactionDetails(request, response);
    const people = (await list()).map(
      ({ id, name, title }) =>
        `<button name="id" value="${escape(id)}">${escape(name)}<br><small>${escape(title)}</small></button>`,
    );
    response.type('html').send(page('Who are you?', `<form method="post">${people.join('')}</form>`));
  });
  router.post('/who/:uid', urlencoded({ extended: false }), async (request, response) => {
    const { id: chosen } = (request.body ?? {}) as { id?: unknown };
    await provider.interactionFinished(
      request,
      response,
      typeof chosen === 'string' && chosen !== ''
        ? { login: { accountId: chosen } }
        : { error: 'access_denied', error_description: 'nobody was chosen' },
    );
  });
  return router;
}

/** Its client, as the demo's data names it: without a secret, which PKCE makes up for. */
const CLIENT = 'listo';
const PATH = '/stand-in/provider';

/** A key for the life of the process. */
const createKey = (): JWK => {
  const { privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 });
  return { ...privateKey.export({ format: 'jwk' }), use: 'sig', alg: 'RS256' };
};

type PersonRow = { id: string; name: string; title: string; email: string; language: string };

async function findAccount({ db }: Listo, subject: string): Promise<Account | null> {
  const id = subject.replace(/^solvarra-/, '');
  const person: PersonRow | null = await db.tables.people.findOne({ id, leftAt: null });
  if (!person) return null;
  const members = await db.tables.members.find({ personId: id });
  const { name, email, language } = person;
  const groups = members.map(({ teamId, role }) => `${teamId} ${role}`);
  return { id: subject, claims: { name, email, email_verified: true, locale: language, groups } };
}

async function listChoices({ db }: Listo): Promise<Choice[]> {
  const demo = (await db.tables.settings.findOne({ name: 'demo' }))?.value as
    { people: string[] } | undefined;
  const people = await db.tables.people.find({ id: demo?.people ?? [], leftAt: null }, { order: ['name'] });
  return people.map(({ id, name, title }) => ({ id: `solvarra-${id}`, name, title }));
}

/**
 * Stands in for an organisation's provider of OpenID Connect: the demo's people have accounts there, without passwords. It
 * is reached like a real one. Its accounts are in memory, so that signing in there ends with the process.
 */
export function createStandInProvider(listo: Listo): Router {
  const router = Router();
  let made: Promise<{ provider: Provider; choosing: Router }> | null = null;
  const make = async () => {
    const provider = await createOidcProvider({
      issuer: `${listo.address}${PATH}`,
      client: {
        client_id: CLIENT,
        token_endpoint_auth_method: 'none',
        redirect_uris: [`${listo.address}/sign-on/return`],
        post_logout_redirect_uris: [`${listo.address}/`],
      },
      find: (id) => findAccount(listo, id),
      jwks: { keys: [createKey()] },
    });
    return { provider, choosing: createChoosing(provider, () => listChoices(listo)) };
  };
  router.use(async (request, response, next) => {
    // Nobody but the demo's people is let in by saying who they are.
    if (!(await listo.db.tables.settings.findOne({ name: 'demo' }))) {
      response.status(404).end();
      return;
    }
    made ??= make();
    const { provider, choosing } = await made;
    choosing(request, response, (error) => {
      if (error) next(error);
      else void provider.callback()(request, response);
    });
  });
  return router;
}
