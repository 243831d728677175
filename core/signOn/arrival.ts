import type { TeamRole } from '../rights';

/** What a provider says of someone who has signed in there, as far as it matters here. */
export type Claims = {
  /** Their id at the provider; it stays when names and addresses change (OpenID Connect Core 1.0, 2, `sub`). */
  subject: string;
  /** Lower case; null: none, or none that is an address. */
  email: string | null;
  /** Whether the provider knows that the address is theirs (`email_verified`, 5.1). */
  isEmailVerified: boolean;
  name: string | null;
  /** What the claim for roles holds. */
  groups: string[];
};

/** Someone who is known here. `hasOtherSubject`: they have signed in through this provider under another id. */
export type KnownPerson = { id: string; hasLeft: boolean; hasOtherSubject: boolean };

/** Why somebody who signed in at a provider does not come in here. */
export type ArrivalRefusal =
  'left' | 'mailNotVerified' | 'notItsDomain' | 'otherSubject' | 'notKnown' | 'nameless';

/** What becomes of somebody who has signed in at a provider. */
export type Arrival =
  /** They were here before; or their address is that of somebody who is known, and they are linked from now on. */
  | { kind: 'known' | 'linked'; personId: string }
  | { kind: 'made'; email: string; name: string }
  | { kind: 'refused'; code: ArrivalRefusal };

/** The domain of an address, in lower case. */
export const domainOf = (email: string): string => email.slice(email.lastIndexOf('@') + 1).toLowerCase();

/** Which of several providers signs in those with an address; null: none. `email`: also one that is not yet whole. */
export function findProvider<P extends { domains: string[] }>(providers: P[], email: string): P | null {
  if (!email.includes('@')) return null;
  const domain = domainOf(email.trim());
  return providers.find(({ domains }) => domains.includes(domain)) ?? null;
}

const refused = (code: ArrivalRefusal): Arrival => ({ kind: 'refused', code });

/**
 * Whether somebody who has signed in at a provider comes in, and as whom: by their id there, else by an address of the
 * provider's own domains that it has verified. An address that was given to somebody else does not open the account of who
 * had it before.
 * @param rules the provider's domains (lower case) and whether it makes people who are not known
 * @param known who came under this id before, and who has this address
 */
export function judgeArrival(
  { email, isEmailVerified, name }: Claims,
  { domains, makesPeople }: { domains: string[]; makesPeople: boolean },
  { bySubject, byEmail }: { bySubject: KnownPerson | null; byEmail: KnownPerson | null },
): Arrival {
  if (bySubject) return bySubject.hasLeft ? refused('left') : { kind: 'known', personId: bySubject.id };
  if (email === null || !isEmailVerified) return refused('mailNotVerified');
  if (!domains.includes(domainOf(email))) return refused('notItsDomain');
  if (byEmail?.hasLeft) return refused('left');
  if (byEmail?.hasOtherSubject) return refused('otherSubject');
  if (byEmail) return { kind: 'linked', personId: byEmail.id };
  if (!makesPeople) return refused('notKnown');
  return name === null ? refused('nameless') : { kind: 'made', email, name };
}

/** A line of the table by which a provider's groups give a role in a team. */
export type GroupLine = { group: string; teamId: string; role: TeamRole };
/** A place in a team. */
export type Place = { teamId: string; role: TeamRole };

const RANK: TeamRole[] = ['agent', 'teamAdministrator', 'lead'];

/** The places in teams that groups give, by the table; of several in one team the one that stands highest. */
export function placesOf(groups: string[], table: GroupLine[]): Place[] {
  const places = new Map<string, TeamRole>();
  for (const { group, teamId, role } of table) {
    const before = places.get(teamId);
    if (groups.includes(group) && (before === undefined || RANK.indexOf(role) > RANK.indexOf(before)))
      places.set(teamId, role);
  }
  return [...places].map(([teamId, role]) => ({ teamId, role }));
}

/**
 * What changes in someone's places when a provider says anew where they belong. A place that somebody gave by hand stays as
 * it is; one that the provider gave goes when it gives it no more.
 * @param has the places as they are
 * @param gave the teams in which the provider gave the place
 * @param gives the places that it gives now
 */
export function changePlaces(
  has: Place[],
  gave: string[],
  gives: Place[],
): { set: Place[]; remove: string[]; gave: string[] } {
  const byHand = (teamId: string): boolean =>
    has.some((place) => place.teamId === teamId) && !gave.includes(teamId);
  const ours = gives.filter(({ teamId }) => !byHand(teamId));
  const isAsBefore = ({ teamId, role }: Place): boolean =>
    has.some((place) => place.teamId === teamId && place.role === role);
  return {
    set: ours.filter((place) => !isAsBefore(place)),
    remove: has
      .map(({ teamId }) => teamId)
      .filter((teamId) => gave.includes(teamId) && !ours.some((place) => place.teamId === teamId)),
    gave: ours.map(({ teamId }) => teamId),
  };
}
