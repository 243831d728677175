/** How long something has taken, or has been open so far. */
export type Length = { length: number; isDone: boolean };

/** How long it takes until done, with what is still open counted for as long as it has been open. */
export type Survival = {
  /** The least length at which at most half are still open; null where that is never so. */
  median: number | null;
  /** The share still open after so long; those done at it are no longer among them. */
  share(after: number): number;
};

const HALF = 0.5 + 1e-12;

/**
 * The Kaplan–Meier estimate (E. L. Kaplan, P. Meier, 1958). At equal lengths the done ones come first: what was open so
 * long was still there when they were done.
 */
export function timeToDone(durations: Length[]): Survival {
  const sorted = [...durations].sort((a, b) => a.length - b.length);
  const steps: { length: number; share: number }[] = [];
  let share = 1;
  for (let i = 0; i < sorted.length;) {
    const { length } = sorted[i]!;
    const atRisk = sorted.length - i;
    let done = 0;
    for (; i < sorted.length && sorted[i]!.length === length; i++) if (sorted[i]!.isDone) done++;
    if (done === 0) continue;
    share *= 1 - done / atRisk;
    steps.push({ length, share });
  }
  return {
    median: steps.find((step) => step.share <= HALF)?.length ?? null,
    share: (after) => steps.findLast((step) => step.length <= after)?.share ?? 1,
  };
}
