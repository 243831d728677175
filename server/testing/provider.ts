import {
  exportJWK,
  importJWK,
  generateKeyPair,
  SignJWT,
  decodeJwt,
  decodeProtectedHeader,
  type CryptoKey,
} from 'jose';
import express, { type Express } from 'express';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import type { Provider } from 'oidc-provider';
import { createChoosing, createOidcProvider, type Account } from '../standIns/provider';

/** What a token says, and how it is signed: what one test has wrong. */
export type Token = { claims: Record<string, unknown>; header: { alg: string; kid?: string }; key: unknown };
/** Changes a token before it is handed out. Null: hands out what is written instead. */
export type Spoil = (token: Token) => Token | string;

/** A provider of OpenID Connect that runs for the tests, a real one, with accounts that the test names. */
export type TestProvider = {
  issuer: string;
  clientId: string;
  secret: string;
  accounts: Map<string, Account>;
  /** Says something wrong in the next tokens. */
  spoil(by: Spoil | null): void;
  /** Takes new keys, as if it had been exchanged. */
  changeKeys(): Promise<void>;
  /** Where its client is, once that is known. */
  leadBackTo(address: string): Promise<void>;
  /** A key of somebody else. */
  makeKey(): Promise<CryptoKey>;
  end(): Promise<void>;
};

const KEY = { alg: 'RS256', use: 'sig' };

/** Starts a provider that knows one client. */
export async function startProvider(): Promise<TestProvider> {
  const accounts = new Map<string, Account>();
  const app: Express = express();
  const server: Server = app.listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  const issuer = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const [clientId, secret] = ['listo-here', 'a secret of forty letters, to be sealed'];
  let spoilBy: Spoil | null = null;
  let returnTo = issuer;
  let handle: express.RequestHandler;
  const makeKey = async () => (await generateKeyPair('RS256', { extractable: true })).privateKey;
  const changeKeys = async (): Promise<void> => {
    const privateKey = await makeKey();
    const kid = `key-${Math.random()}`;
    const provider = await createOidcProvider({
      issuer,
      client: {
        ...{ client_id: clientId, client_secret: secret, redirect_uris: [`${returnTo}/sign-on/return`] },
        post_logout_redirect_uris: [`${returnTo}/`],
      },
      jwks: { keys: [{ ...((await exportJWK(privateKey)) as never as object), ...KEY, kid } as never] },
      find: (id) => Promise.resolve(accounts.get(id) ?? null),
    });
    spoilTokens(provider, () => spoilBy, privateKey);
    const choosing = createChoosing(provider, () => Promise.resolve([]));
    const answer = provider.callback();
    handle = (request, response, next) => {
      choosing(request, response, (error) => {
        if (error) next(error);
        else void answer(request, response);
      });
    };
  };
  await changeKeys();
  app.use((request, response, next) => void handle(request, response, next));
  return {
    ...{ issuer, clientId, secret, accounts, changeKeys, makeKey },
    leadBackTo(address) {
      returnTo = address;
      return changeKeys();
    },
    spoil: (by) => (spoilBy = by),
    async end() {
      server.closeAllConnections();
      await new Promise((closed) => server.close(closed));
    },
  };
}

function spoilTokens(provider: Provider, spoil: () => Spoil | null, privateKey: CryptoKey): void {
  provider.use(async (ctx, next) => {
    await next();
    const by = spoil();
    const body = ctx.body as { id_token?: string } | undefined;
    if (!ctx.path.endsWith('/token') || by === null || !body?.id_token) return;
    const { alg, kid } = decodeProtectedHeader(body.id_token);
    const spoilt = by({
      claims: decodeJwt(body.id_token),
      header: { alg: alg!, ...(kid !== undefined && { kid }) },
      key: privateKey,
    });
    // The same key, for what is signed by another algorithm with it.
    const toKey = async ({ key, header }: Token) =>
      key === privateKey && header.alg === 'PS256' ? importJWK(await exportJWK(privateKey), 'PS256') : key;
    const token =
      typeof spoilt === 'string'
        ? spoilt
        : await new SignJWT(spoilt.claims)
            .setProtectedHeader(spoilt.header)
            .sign((await toKey(spoilt)) as CryptoKey);
    ctx.body = { ...body, id_token: token };
  });
}

/** A browser that keeps cookies by host and follows where it is led. */
export class Browser {
  private readonly cookies = new Map<string, Map<string, string>>();

  /** The cookies for an address, as they are sent. */
  cookiesFor(address: string): string {
    const jar = this.cookies.get(new URL(address).host) ?? new Map<string, string>();
    return [...jar].map(([name, value]) => `${name}=${value}`).join('; ');
  }

  /** Asks once, without following. */
  async ask(
    address: string,
    form?: Record<string, string>,
  ): Promise<{ status: number; next: string | null }> {
    const response = await fetch(address, {
      redirect: 'manual',
      headers: { Cookie: this.cookiesFor(address), 'User-Agent': 'test browser' },
      ...(form && { method: 'POST', body: new URLSearchParams(form) }),
    });
    const { host } = new URL(address);
    const jar = this.cookies.get(host) ?? new Map<string, string>();
    this.cookies.set(host, jar);
    for (const each of response.headers.getSetCookie()) {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(each)!;
      if (/max-age=0|expires=thu, 01 jan 1970/i.test(each) || value === '') jar.delete(name!);
      else jar.set(name!, value!);
    }
    const location = response.headers.get('Location');
    await response.arrayBuffer();
    return { status: response.status, next: location && new URL(location, address).href };
  }

  /** Signs in at a provider, as one of its accounts, up to the address that leads back. */
  async comeBack(start: string, accountId: string): Promise<string> {
    let at = start;
    for (let steps = 0; steps < 12; steps++) {
      const form = at.includes('/who/') ? { id: accountId } : undefined;
      const { next, status } = await this.ask(at, form);
      if (next === null) throw new Error(`led nowhere by ${at}: ${status}`);
      if (next.includes('/sign-on/return')) return next;
      if (next.includes('signOn=')) return next;
      at = next;
    }
    throw new Error('led about without end');
  }

  /** Signs in at a provider and comes in. @returns the page of the application that it leads to */
  async signIn(start: string, accountId: string): Promise<string> {
    const back = await this.comeBack(start, accountId);
    if (back.includes('signOn=')) return back;
    return (await this.ask(back)).next!;
  }
}
