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
