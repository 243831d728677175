import type { LocalText } from '../forms';

/** How far something is, in a team's own words; some count as finished. */
export type ProgressLabel = { id: string; name: LocalText; isFinished: boolean };

/**
 * What a label that is put on a ticket, or taken off, makes of the mark that it is finished: it stands from the first
 * label that counts as finished for as long as one does.
 * @example moveProgress([ordered, delivered], { progressFinishedAt: null }, 'delivered', now) // { progressId: 'delivered', progressFinishedAt: now }
 */
export function moveProgress(
  labels: ProgressLabel[],
  { progressFinishedAt }: { progressFinishedAt: number | null },
  progressId: string | null,
  now: number,
): { progressId: string | null; progressFinishedAt: number | null } {
  const isFinished = labels.some((label) => label.id === progressId && label.isFinished);
  return { progressId, progressFinishedAt: isFinished ? (progressFinishedAt ?? now) : null };
}

/** Labels of which one list says that they count as finished, and the other that they do not, or does not have them. */
export function countedOtherwise(before: ProgressLabel[], after: ProgressLabel[]): string[] {
  const counts = (labels: ProgressLabel[], id: string): boolean =>
    labels.some((label) => label.id === id && label.isFinished);
  const ids = new Set([...before, ...after].map(({ id }) => id));
  return [...ids].filter((id) => counts(before, id) !== counts(after, id));
}

/** When work was finished, in ms since 1970: by its team's label or by being done, what came first; null: not yet. */
export function finishedAt({
  progressFinishedAt,
  resolvedAt,
}: {
  progressFinishedAt: number | null;
  resolvedAt: number | null;
}): number | null {
  if (progressFinishedAt === null || resolvedAt === null) return progressFinishedAt ?? resolvedAt;
  return Math.min(progressFinishedAt, resolvedAt);
}
