import { lookup } from 'node:dns/promises';
import http from 'node:http';
import https from 'node:https';
import { isIP } from 'node:net';
import ipaddr from 'ipaddr.js';
import { sign } from './signing';
import type { Listo } from '../listo';
import { readSecret } from './secrets';

/** An outside address that may not be called, and why. Says nothing of what is behind it. */
export class NotAllowed extends Error {}

type Allowed = { host: string; port: string; isPlain: boolean };

/** The addresses that the organisation names: `directory.example`, `http://127.0.0.1:4700`. */
function readAllowed(setting: string): Allowed[] {
  return setting
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const { protocol, hostname, port } = new URL(part.includes('://') ? part : `https://${part}`);
      return { host: hostname, port, isPlain: protocol === 'http:' };
    });
}

/** The stand-ins of the demo are the only addresses of Listo's own that may be called, by their path alone. */
const isStandIn = (address: string): boolean => /^\/stand-in\/[a-z]+(\/[\w.-]+)*$/.test(address);

/**
 * The address to call, as far as it may be: over TLS (plainly only where it is named so), a host that is named, or any
 * where none is.
 * @throws NotAllowed
 */
export function readAddress(
  listo: Pick<Listo, 'config' | 'address'>,
  address: string,
): { url: URL; isNamed: boolean } {
  if (isStandIn(address)) return { url: new URL(address, listo.address), isNamed: true };
  if (!URL.canParse(address)) throw new NotAllowed('no whole address');
  const url = new URL(address);
  if (url.username !== '' || url.password !== '') throw new NotAllowed('a password in the address');
  const isPlain = url.protocol === 'http:';
  if (!isPlain && url.protocol !== 'https:') throw new NotAllowed('neither https nor http');
  const allowed = readAllowed(listo.config.LISTO_OUTGOING_HOSTS);
  const isNamed = allowed.some(
    (each) => each.host === url.hostname && each.port === url.port && each.isPlain === isPlain,
  );
  if (!isNamed && (isPlain || allowed.length > 0)) throw new NotAllowed('not among the hosts that are named');
  return { url, isNamed };
}

/** Whether an address is one of the public internet's: neither this machine, nor its network, nor set aside for anything. */
export function isPublic(ip: string): boolean {
  if (!ipaddr.isValid(ip)) return false;
  return ipaddr.process(ip).range() === 'unicast';
}

/** An IPv6 address stands within them in a URL. */
const BRACKETS = /^\[|\]$/g;

/** The one address that a host has now. @throws NotAllowed where it is not public */
async function resolve(hostname: string, isNamed: boolean): Promise<string> {
  const host = hostname.replace(BRACKETS, '');
  const found = isIP(host) ? [{ address: host }] : await lookup(host, { all: true });
  const first = found.find(({ address }) => isNamed || isPublic(address));
  // One that also leads inside leads inside.
  if (!first || (!isNamed && !found.every(({ address }) => isPublic(address))))
    throw new NotAllowed('leads into a private network');
  return first.address;
}

/** Whether an address may be called as far as it shows by itself; where its host leads is seen when it is called. */
export function mayCallOut(listo: Pick<Listo, 'config' | 'address'>, address: string): boolean {
  try {
    const { url, isNamed } = readAddress(listo, address);
    const host = url.hostname.replace(BRACKETS, '');
    return isNamed || !isIP(host) || isPublic(host);
  } catch (error) {
    if (error instanceof NotAllowed) return false;
    throw error;
  }
}

const PATIENCE_MS = 10_000;
const MOST_BYTES = 1_000_000;
/** So much of an error is kept. */
const ERROR_LENGTH = 300;

/** What a call is made for: a step of a plan, a webhook, or somebody's signing in at a provider, by its id. */
export type CallPurpose = { kind: 'step' | 'webhook' | 'signOn'; ref: string };
type Call = { address: string; body: string; id: string; of: CallPurpose; secret?: string };
/** What an outside address said: its status, how it begins, and when it wants to be asked again. */
export type Answered = { status: number; text: string; retryAfter: string | undefined };
/** What came back whole, bounded in size. */
type Exchanged = { status: number; headers: http.IncomingHttpHeaders; text: string };
type Sent = { method: string; headers: Record<string, string | number>; body: string };

/** The connection ends at the address that was looked at, whatever the name leads to a moment later. */
const toLookup =
  (ip: string) =>
  (_host: string, options: { all?: boolean }, found: (...args: unknown[]) => void): void => {
    const family = isIP(ip);
    if (options.all) found(null, [{ address: ip, family }]);
    else found(null, ip, family);
  };

/** Sends a request and reads what comes back, bounded in time and size. */
function exchange(url: URL, ip: string, { method, headers, body }: Sent): Promise<Exchanged> {
  const { request } = url.protocol === 'http:' ? http : https;
  return new Promise((answer, fail) => {
    const call = request(
      url,
      {
        ...{ method, headers: { ...headers }, lookup: toLookup(ip) as never },
        ...{ agent: false, signal: AbortSignal.timeout(PATIENCE_MS) },
      },
      (response) => {
        const parts: Buffer[] = [];
        let size = 0;
        response.on('data', (part: Buffer) => {
          size += part.length;
          if (size > MOST_BYTES) call.destroy(new Error('answered too much'));
          else parts.push(part);
        });
        response.on('end', () =>
          answer({
            status: response.statusCode ?? 0,
            headers: response.headers,
            text: Buffer.concat(parts).toString('utf8'),
          }),
        );
        response.on('error', fail);
      },
    );
    call.on('error', fail);
    call.end(body);
  });
}

/** Writes down that a call was made. The record of a call never keeps the call from what follows it. */
async function record(
  listo: Listo,
  { address, of }: Pick<Call, 'address' | 'of'>,
  outcome: { status: number | null; ms: number; bytes: number; error: string | null },
): Promise<void> {
  const url = URL.canParse(address, listo.address) ? new URL(address, listo.address) : null;
  await listo.db.tables.outgoingCalls
    .insert({
      ...{ at: listo.clock.now(), kind: of.kind, ref: of.ref, ...outcome },
      // What stands after the path may be a secret.
      address: (url ? `${url.origin}${url.pathname}` : address).slice(0, 500),
    })
    .catch((error: unknown) => listo.log.warn(error, 'an outgoing call was not recorded'));
}

/** Calls an address as far as it may be called; the call is on record, however it went. */
async function callAddress(
  listo: Listo,
  { address, of }: Pick<Call, 'address' | 'of'>,
  sent: Sent,
): Promise<Exchanged> {
  const began = performance.now();
  const ended = (status: number | null, bytes: number, error: string | null) =>
    record(listo, { address, of }, { status, bytes, error, ms: Math.round(performance.now() - began) });
  try {
    const { url, isNamed } = readAddress(listo, address);
    const answered = await exchange(url, await resolve(url.hostname, isNamed), sent);
    await ended(answered.status, Buffer.byteLength(answered.text), null);
    return answered;
  } catch (error) {
    await ended(null, 0, (error as Error).message.slice(0, ERROR_LENGTH));
    throw error;
  }
}

/**
 * Posts JSON to an outside address: with `fetchOut` the only door by which addresses that people write down are called. The
 * host is resolved once and that address is called; redirects are not followed; the request is signed as Standard Webhooks
 * are (with `secret`, or with the one of this installation); time and size are bounded; each call is on record.
 * @throws NotAllowed where it may not be called; another Error where nothing came back
 */
export async function callOut(listo: Listo, { address, of, body, id, secret }: Call): Promise<Answered> {
  const signed = sign(secret ?? (await readSecret(listo, 'outgoingSecret')), { id, body });
  const headers = {
    ...signed,
    ...{ 'Content-Type': 'application/json', 'Idempotency-Key': id },
    'Content-Length': Buffer.byteLength(body),
  };
  const answered = await callAddress(listo, { address, of }, { method: 'POST', headers, body });
  return { status: answered.status, text: answered.text, retryAfter: answered.headers['retry-after'] };
}

/** What is asked of an address, as `fetch` takes it. */
type Asked = { method?: string; headers?: Record<string, string>; body?: unknown };

/**
 * A `fetch` for libraries, by the same door as `callOut`: the same addresses, bounds and record, nothing signed.
 * @throws NotAllowed where the address may not be called; another Error where nothing came back
 */
export const fetchOut =
  (listo: Listo, of: CallPurpose) =>
  async (address: string, { method = 'GET', headers = {}, body }: Asked): Promise<Response> => {
    const words = body instanceof URLSearchParams ? body.toString() : ((body as string | null) ?? '');
    // The stand-ins of the demo are named by their path alone.
    const own = `${listo.address}/stand-in/`;
    const target = address.startsWith(own) ? address.slice(listo.address.length) : address;
    const sent = { method, headers: { ...headers, 'Content-Length': Buffer.byteLength(words) }, body: words };
    const answered = await callAddress(listo, { address: target, of }, sent);
    const answeredHeaders = Object.entries(answered.headers).flatMap(([name, value]) =>
      [value ?? []].flat().map((each) => [name, each] as [string, string]),
    );
    const hasNoBody = [204, 205, 304].includes(answered.status);
    return new Response(hasNoBody ? null : answered.text, {
      status: answered.status,
      headers: answeredHeaders,
    });
  };
