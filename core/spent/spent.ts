/** What time was spent on; a short list that everyone shares, so that sums can be compared. */
export const SPENT_ON = ['working', 'talking', 'travelling', 'writing'] as const;
/** What time was spent on. */
export type SpentOn = (typeof SPENT_ON)[number];

const MINUTE = 60_000;
/** A timer that has run so long was left on: it is not believed. */
export const LEFT_ON_AFTER_MS = 10 * 60 * MINUTE;
/** The most that one entry can be: a day and a night. */
export const MOST_MINUTES = 24 * 60;

/**
 * What a timer says: begun minutes count whole. `isLeftOn`: it ran so long that whoever started it must say how long
 * it was really.
 * @example readTimer(nine, nineThirty) // { minutes: 30, isLeftOn: false }
 */
export function readTimer(startedAt: number, now: number): { minutes: number; isLeftOn: boolean } {
  const ran = Math.max(0, now - startedAt);
  return { minutes: Math.max(1, Math.ceil(ran / MINUTE)), isLeftOn: ran > LEFT_ON_AFTER_MS };
}

/** What is wrong with an entry of time, and in which field. */
export type SpentProblem = {
  field: 'minutes' | 'startedAt';
  code: 'tooSmall' | 'tooLarge' | 'notPossible';
  limit?: number;
};

/** What is wrong with time that someone says they spent. */
export function checkSpent(
  { minutes, startedAt }: { minutes: number; startedAt: number },
  now: number,
): SpentProblem[] {
  const problems: SpentProblem[] = [];
  if (minutes < 1) problems.push({ field: 'minutes', code: 'tooSmall', limit: 1 });
  if (minutes > MOST_MINUTES) problems.push({ field: 'minutes', code: 'tooLarge', limit: MOST_MINUTES });
  if (startedAt + minutes * MINUTE > now + MINUTE) problems.push({ field: 'startedAt', code: 'notPossible' });
  return problems;
}

/** Spent against estimated, as a share; null without an estimate. */
export function judgeEstimate(
  estimate: number | null,
  spent: number,
): { share: number; isOver: boolean } | null {
  return estimate === null || estimate <= 0 ? null : { share: spent / estimate, isOver: spent > estimate };
}
