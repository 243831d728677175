import { getOwn } from '../records';
import { findVoters } from './findVoters';
import type { Absence, ApproverRef, Asked, Directory, FoundVoter, VoterProblem } from './types';

/**
 * Who decides a step: its voters; where none was found, or all who would be asked are away, the service's fallback
 * takes it alone, if they are there and it is not their own.
 */
export function findDeciders(
  refs: ApproverRef[],
  asked: Asked,
  directory: Directory,
  absences: Absence[],
  now: number,
): { voters: FoundVoter[]; problems: VoterProblem[] } {
  const found = findVoters(refs, asked, directory, absences, now);
  const isAway = ({ by }: FoundVoter): boolean =>
    absences.some(({ person, from, to }) => person === by && from <= now && now < to);
  if (!found.voters.every(isAway)) return found;
  const fallback = getOwn(directory.fallback, asked.service);
  if (fallback === undefined) return found;
  const [instead] = findVoters([{ person: fallback }], asked, directory, absences, now).voters;
  if (instead?.voter !== fallback || isAway(instead)) return found;
  return { ...found, voters: [{ ...instead, reason: 'fallback' }] };
}
