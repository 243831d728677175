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
