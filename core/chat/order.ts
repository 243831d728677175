/** Something that a room numbers without gaps, from 1 on, with when it reached us. */
export type Numbered = { seq: number; receivedAt: number };

/**
 * Those that can be handled now, in their order: each follows the one before, what was handled already is left out, and a
 * gap holds up what comes after it until `patience` ms have gone by since that was received; then it is passed over.
 */
export function takeInOrder<T extends Numbered>(
  waiting: readonly T[],
  lastSeq: number,
  now: number,
  patience: number,
): T[] {
  const taken: T[] = [];
  let last = lastSeq;
  for (const each of [...waiting].sort((a, b) => a.seq - b.seq)) {
    if (each.seq <= last) continue;
    if (each.seq > last + 1 && now - each.receivedAt < patience) break;
    taken.push(each);
    last = each.seq;
  }
  return taken;
}

/** A numbered event, and whether it has been dealt with. */
export type Known = Numbered & { isOver: boolean };

/**
 * What a turn goes through of all that is known of a room, in its order: what is over with already, and what is at hand,
 * until something waits that is not. What waits is never a gap.
 */
export function takeTurn(
  known: readonly Known[],
  isAtHand: (seq: number) => boolean,
  { lastSeq, now, patience }: { lastSeq: number; now: number; patience: number },
): Known[] {
  const inOrder = takeInOrder(known, lastSeq, now, patience);
  const firstAway = inOrder.findIndex(({ seq, isOver }) => !isOver && !isAtHand(seq));
  return firstAway === -1 ? inOrder : inOrder.slice(0, firstAway);
}

/** How far a room is over with: up to the last before the first of a turn that is not. */
export function overUpTo(
  turn: readonly Numbered[],
  lastSeq: number,
  isOver: (seq: number) => boolean,
): number {
  const firstLeft = turn.findIndex(({ seq }) => !isOver(seq));
  const over = firstLeft === -1 ? turn : turn.slice(0, firstLeft);
  return over.at(-1)?.seq ?? lastSeq;
}
