import { getOwn } from '../records';
import type { Absence, ApproverRef, Asked, Directory, FoundVoter, VoterProblem, VoterReason } from './types';

const MOST_HOPS = 3;

type Candidate = { person: string | undefined; reason: VoterReason };

/** The people that a reference names, before asking whether they may decide. */
function resolve(
  ref: ApproverRef,
  asked: Asked,
  directory: Directory,
  problems: VoterProblem[],
): Candidate[] {
  if ('person' in ref) return [{ person: ref.person, reason: 'named' }];
  if ('manager' in ref) {
    const of = ref.manager === 'ofRequester' ? asked.requester : asked.recipient;
    return [{ person: nthManager(of, ref.levels ?? 1, directory), reason: 'manager' }];
  }
  if ('team' in ref) {
    const team = getOwn(directory.teams, ref.team);
    if (!team) {
      problems.push({ code: 'unknownTeam' });
      return [];
    }
    return ref.only === 'leads'
      ? team.leads.map((person) => ({ person, reason: 'lead' }))
      : team.members.map((person) => ({ person, reason: 'team' }));
  }
  const key = ref.ownerOf === 'service' ? asked.service : asked[ref.ownerOf];
  const person = key === undefined ? undefined : getOwn(directory.owners[ref.ownerOf], key);
  if (person === undefined) problems.push({ code: 'noOwner' });
  return [{ person, reason: 'owner' }];
}

/** The n-th manager up; people who left are passed over and not counted. */
function nthManager(person: string, levels: number, directory: Directory): string | undefined {
  const seen = new Set([person]);
  let at: string | undefined = person;
  for (let left = levels; left > 0;) {
    at = getOwn(directory.people, at)?.manager;
    if (at === undefined || seen.has(at)) return undefined;
    seen.add(at);
    if (!getOwn(directory.people, at)?.left) left--;
  }
  return at;
}

/** The person themself if they may decide, else the next one up who may, else the service's fallback. */
function findDecider({ person, reason }: Candidate, asked: Asked, directory: Directory): Candidate {
  const seen = new Set<string>();
  let at = person;
  let why = reason;
  while (at !== undefined && !seen.has(at)) {
    const isParty = at === asked.requester || at === asked.recipient;
    if (!isParty && !getOwn(directory.people, at)?.left) return { person: at, reason: why };
    seen.add(at);
    at = getOwn(directory.people, at)?.manager;
    why = 'oneUp';
  }
  const fallback = getOwn(directory.fallback, asked.service);
  const mayDecide = fallback !== undefined && fallback !== asked.requester && fallback !== asked.recipient;
  return {
    person: mayDecide && !getOwn(directory.people, fallback)?.left ? fallback : undefined,
    reason: 'fallback',
  };
}

type Delegation = { by: string; via: string[]; problem?: VoterProblem };

/** Follows delegates of absent people; one who cannot decide leaves the ask with the absent person. */
function findAsked(
  voter: string,
  asked: Asked,
  directory: Directory,
  absences: Absence[],
  now: number,
): Delegation {
  const via: string[] = [];
  let by = voter;
  for (;;) {
    const absence = absences.find(({ person, from, to }) => person === by && from <= now && now < to);
    const delegate = absence?.delegate;
    if (delegate === undefined) return { by, via };
    const isParty = delegate === asked.requester || delegate === asked.recipient;
    const isRing = delegate === voter || via.includes(delegate) || delegate === by;
    if (isParty || isRing || getOwn(directory.people, delegate)?.left || via.length === MOST_HOPS)
      return { by, via, problem: { code: 'delegateCannot', person: delegate } };
    via.push(by);
    by = delegate;
  }
}

/**
 * Who decides a step, who is asked to say it for them, and why. The requester and the recipient never decide their
 * own request.
 */
export function findVoters(
  refs: ApproverRef[],
  asked: Asked,
  directory: Directory,
  absences: Absence[],
  now: number,
): { voters: FoundVoter[]; problems: VoterProblem[] } {
  const problems: VoterProblem[] = [];
  const voters = new Map<string, FoundVoter>();
  for (const candidate of refs.flatMap((ref) => resolve(ref, asked, directory, problems))) {
    const { person, reason } = findDecider(candidate, asked, directory);
    if (person === undefined) {
      problems.push({ code: 'noVoter' });
      continue;
    }
    if (voters.has(person)) continue;
    const { by, via, problem } = findAsked(person, asked, directory, absences, now);
    if (problem) problems.push(problem);
    voters.set(person, { voter: person, by, reason, via });
  }
  return { voters: [...voters.values()], problems };
}
