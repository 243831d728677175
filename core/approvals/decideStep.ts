import { BadCount, BadPercent, NoVoters } from './errors';
import type { Needs, StepOutcome, Vote } from './types';

function countNeeded(needs: Needs, voters: number): number {
  switch (needs.kind) {
    case 'any':
      return 1;
    case 'all':
      return voters;
    case 'count':
      if (!(needs.count >= 1)) throw new BadCount(needs.count);
      return Math.min(needs.count, voters);
    case 'percent': {
      const { percent } = needs;
      if (!(percent >= 0 && percent <= 100)) throw new BadPercent(percent);
      return Math.min(Math.max(1, Math.ceil((percent * voters) / 100)), voters);
    }
  }
}

/**
 * What the votes so far make of one approval step. A voter's first vote counts; nothing counts after the decision.
 * @example decideStep({ kind: 'any' }, 'any', ['ana'], []).outcome // 'open'
 * @throws NoVoters, BadCount, BadPercent
 */
export function decideStep(
  needs: Needs,
  declineBy: 'any' | 'outOfReach',
  voters: string[],
  votes: Vote[],
): StepOutcome {
  const unique = [...new Set(voters)];
  if (unique.length === 0) throw new NoVoters();
  const needed = countNeeded(needs, unique.length);
  const outstanding = new Set(unique);
  let approvals = 0;
  let declines = 0;
  let outcome: StepOutcome['outcome'] = 'open';
  let decidedAt: number | null = null;

  // Array.sort is stable, so votes at one instant stay as given.
  for (const { voter, decision, at } of [...votes].sort((a, b) => a.at - b.at)) {
    if (!outstanding.delete(voter)) continue;
    if (decision === 'approve') approvals++;
    else declines++;
    const isDeclined = declineBy === 'any' ? declines > 0 : unique.length - declines < needed;
    if (approvals < needed && !isDeclined) continue;
    outcome = isDeclined ? 'declined' : 'approved';
    decidedAt = at;
    break;
  }
  return {
    outcome,
    decidedAt,
    needed,
    approvals,
    declines,
    outstanding: unique.filter((voter) => outstanding.has(voter)),
  };
}
