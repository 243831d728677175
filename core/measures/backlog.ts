/** When a ticket was opened and when it ended; null: it has not. */
export type Span = { opened: number; ended: number | null };

/** What ended when or before it opened was never open. */
const wasOpen = ({ opened, ended }: Span): boolean => ended === null || ended > opened;

/** How many of the sorted values are at most `limit`. */
function countUpTo(sorted: Float64Array, limit: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sorted[middle]! <= limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** How many tickets are open at each instant: opened by then, and not ended by then. */
export function openAt(tickets: Span[], instants: number[]): number[] {
  const counted = tickets.filter(wasOpen);
  const opened = Float64Array.from(counted, (ticket) => ticket.opened).sort();
  const ended = Float64Array.from(
    counted.flatMap((ticket) => (ticket.ended === null ? [] : [ticket.ended])),
  ).sort();
  return instants.map((at) => countUpTo(opened, at) - countUpTo(ended, at));
}

/**
 * How many tickets open at an instant have been so for [edge i, edge i + 1) ms, the last without end.
 * @param edges rising, the first 0
 */
export function ageing(tickets: Span[], at: number, edges: number[]): number[] {
  const counts = edges.map(() => 0);
  const sorted = Float64Array.from(edges);
  for (const ticket of tickets) {
    const { opened, ended } = ticket;
    if (opened > at || (ended !== null && ended <= at) || !wasOpen(ticket)) continue;
    const i = countUpTo(sorted, at - opened) - 1;
    if (i >= 0) counts[i]!++;
  }
  return counts;
}
