import { wilson } from '../estate';

/** How far one is with a problem. A known error is one whose cause is known and that can be worked around. */
export const PROBLEM_STAGES = ['suspected', 'lookedInto', 'causeKnown', 'knownError', 'solved'] as const;
/** How far one is with a problem. */
export type ProblemStage = (typeof PROBLEM_STAGES)[number];

/** What an incident is to a problem: thought to come of it, known to, or not after all. */
export const PROBLEM_TIES = ['suspected', 'confirmed', 'dropped'] as const;
/** What an incident is to a problem. */
export type ProblemTie = (typeof PROBLEM_TIES)[number];

/** The longest words of a problem. */
export const PROBLEM_LIMITS = { cause: 4_000, workaround: 8_000, reason: 500 } as const;

/** What a stage asks for: the field, and that it is missing. */
export type ProblemFault = { field: 'cause' | 'workaround' | 'causeKindId'; code: 'missing' };

/** What is known of a problem. */
export type Known = { cause: string; causeKindId: string | null; workaround: string };

/** What has to be written before a problem may stand at a stage: nobody knows a cause that nobody wrote down. */
export function checkStage(stage: ProblemStage, { cause, causeKindId, workaround }: Known): ProblemFault[] {
  const asksCause = stage === 'causeKnown' || stage === 'knownError' || stage === 'solved';
  return [
    ...(asksCause && cause.trim() === '' ? [{ field: 'cause' as const, code: 'missing' as const }] : []),
    ...(stage === 'solved' && causeKindId === null
      ? [{ field: 'causeKindId' as const, code: 'missing' as const }]
      : []),
    ...(stage === 'knownError' && workaround.trim() === ''
      ? [{ field: 'workaround' as const, code: 'missing' as const }]
      : []),
  ];
}

/** So many incidents of a solved problem within so long, and it is back: one may be chance, or reported late. */
export const BACK_COUNT = 3;
/** The stretch within which they have to come (ms): 30 days. */
export const BACK_WITHIN_MS = 30 * 86_400_000;

/**
 * The instant at which a solved problem was back: when the third incident like those behind it came within 30 days, all
 * after it was solved. null: it is not. Instants in ms since 1970, in any order.
 */
export function backAt(solvedAt: number, incidents: readonly number[]): number | null {
  const since = incidents.filter((at) => at > solvedAt).sort((a, b) => a - b);
  for (let last = BACK_COUNT - 1; last < since.length; last++)
    if (since[last]! - since[last - BACK_COUNT + 1]! <= BACK_WITHIN_MS) return since[last]!;
  return null;
}

/** How many incidents came over a stretch (ms). */
export type Rate = { count: number; ms: number };

/**
 * How often incidents come since, against before, with its interval at 95 %: 0.5 is half as often. Given their sum, the
 * later ones are binomial (common conditional test of two Poisson rates), so the interval is that of a share.
 * null: nothing came before, or there is no stretch to compare.
 */
export function rateRatio(before: Rate, after: Rate): { ratio: number; low: number; high: number } | null {
  const all = before.count + after.count;
  if (before.count === 0 || before.ms <= 0 || after.ms <= 0) return null;
  const scale = before.ms / after.ms;
  const oddsOf = (share: number): number => (share >= 1 ? Infinity : (share / (1 - share)) * scale);
  const { low, high } = wilson(after.count, all);
  return { ratio: oddsOf(after.count / all), low: oddsOf(low), high: oddsOf(high) };
}
