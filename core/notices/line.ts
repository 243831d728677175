/** Something of the line of time of an outage: what was known, said or done, and when. */
export type LinePoint = {
  at: number;
  kind: 'began' | 'told' | 'tied' | 'taken' | 'said' | 'ended' | 'lead';
  /** How many tickets came together at this point. */
  count: number;
  by: string | null;
  words: string;
};

/** Tickets that are tied within so long stand in one line (ms). */
const TOGETHER_MS = 5 * 60_000;

/**
 * The line of time of an outage in the order in which it was. Tickets tied one shortly after the other are one point
 * that counts them, at the instant of the first, so that sixty reports do not hide the three things that were done.
 */
export function toLine(points: readonly LinePoint[]): LinePoint[] {
  const line: LinePoint[] = [];
  for (const point of [...points].sort((a, b) => a.at - b.at)) {
    const last = line.at(-1);
    if (point.kind === 'tied' && last?.kind === 'tied' && point.at - last.at <= TOGETHER_MS)
      last.count += point.count;
    else line.push({ ...point });
  }
  return line;
}
