import ipaddr from 'ipaddr.js';
import type { TeamRole } from '../rights';

/** Two keys at a time, so that a program can change from one to the other without a break. */
export const MOST_KEYS = 2;
/** Requests a minute. */
export const MOST_A_MINUTE = 6_000;

/** What a program's account allows. Instants are ms since 1970. */
export type Program = {
  isOn: boolean;
  /** From then on nothing works; null: no end is set. */
  endsAt: number | null;
  /** Addresses and networks (CIDR) that requests may come from; none: anywhere. */
  networks: string[];
  /** False: it reads and changes nothing. */
  mayChange: boolean;
  teams: { teamId: string; role: TeamRole }[];
};

/** What is kept of a key. Instants are ms since 1970. */
export type ApiKey = { endsAt: number | null; revokedAt: number | null };

/** Why a key does not work now; null: it works. */
export type KeyProblem = 'keyRevoked' | 'keyEnded' | 'programOff' | 'programEnded' | 'keyNotFromThere';

/** @param now ms since 1970 */
export const isLive = ({ endsAt, revokedAt }: ApiKey, now: number): boolean =>
  revokedAt === null && (endsAt === null || now < endsAt);

/** Whether another key can be made beside those that work. @param now ms since 1970 */
export const mayAddKey = (keys: readonly ApiKey[], now: number): boolean =>
  keys.filter((key) => isLive(key, now)).length < MOST_KEYS;

/** @param address where the request comes from @param now ms since 1970 */
export function findKeyProblem(
  program: Program,
  key: ApiKey,
  { address, now }: { address: string; now: number },
): KeyProblem | null {
  if (key.revokedAt !== null) return 'keyRevoked';
  if (!isLive(key, now)) return 'keyEnded';
  if (!program.isOn) return 'programOff';
  if (program.endsAt !== null && now >= program.endsAt) return 'programEnded';
  return isFrom(program.networks, address) ? null : 'keyNotFromThere';
}

/**
 * An address or a network in its one form; null: it is neither. Of a network only what names it stays.
 * @example toNetwork('10.1.2.3/8') // '10.0.0.0/8'
 */
export function toNetwork(words: string): string | null {
  const written = words.trim();
  try {
    if (!written.includes('/')) return ipaddr.process(written).toString();
    const [address, bits] = ipaddr.parseCIDR(written);
    const kind = address.kind() === 'ipv4' ? ipaddr.IPv4 : ipaddr.IPv6;
    return `${kind.networkAddressFromCIDR(written).toString()}/${bits}`;
  } catch {
    return null;
  }
}

/** Whether an address is one of some, or in one of some networks. None named: it may be any. */
export function isFrom(networks: readonly string[], address: string): boolean {
  if (networks.length === 0) return true;
  if (!ipaddr.isValid(address)) return false;
  const from = ipaddr.process(address);
  return networks.some((network) => {
    const [base, bits] = network.includes('/')
      ? ipaddr.parseCIDR(network)
      : [ipaddr.process(network), ipaddr.process(network).kind() === 'ipv4' ? 32 : 128];
    return base.kind() === from.kind() && from.match(base, bits);
  });
}
