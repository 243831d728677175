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

/** The stand-in of the demo is the only address of Listo's own that may be called, by its path alone. */
const isStandIn = (address: string): boolean => /^\/stand-in\/[a-z]+$/.test(address);

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

type Call = { address: string; body: string; id: string };
/** What an outside address said: its status, and how it begins. */
export type Answered = { status: number; text: string };

/**
 * Posts JSON to an outside address: the only door by which addresses that people write down are called. The host is
 * resolved once and that address is called; redirects are not followed; the request is signed as Standard Webhooks are;
 * time and size are bounded.
 * @throws NotAllowed where it may not be called; another Error where nothing came back
 */
export async function callOut(listo: Listo, { address, body, id }: Call): Promise<Answered> {
  const { url, isNamed } = readAddress(listo, address);
  const ip = await resolve(url.hostname, isNamed);
  const signed = sign(await readSecret(listo, 'outgoingSecret'), { id, body });
  const { request } = url.protocol === 'http:' ? http : https;
  return new Promise((answer, fail) => {
    const call = request(
      url,
      {
        method: 'POST',
        headers: {
          ...signed,
          'Content-Type': 'application/json',
          'Idempotency-Key': id,
          'Content-Length': Buffer.byteLength(body),
        },
        // What was looked at is what is called, whatever the name leads to a moment later.
        lookup: (_host, options, found) => {
          const family = isIP(ip);
          if (options.all) (found as (error: null, all: object[]) => void)(null, [{ address: ip, family }]);
          else (found as (error: null, address: string, family: number) => void)(null, ip, family);
        },
        agent: false,
        signal: AbortSignal.timeout(PATIENCE_MS),
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
          answer({ status: response.statusCode ?? 0, text: Buffer.concat(parts).toString('utf8') }),
        );
        response.on('error', fail);
      },
    );
    call.on('error', fail);
    call.end(body);
  });
}
