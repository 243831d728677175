/** When a service may be asked for, and by how many. Instants in epoch milliseconds. */
export type Opening = {
  /** null: at once. */
  from: number | null;
  /** The first instant at which it is over; null: never. */
  until: number | null;
  /** How many may ask; null: any number. */
  most: number | null;
};

/** Whether a service may be asked for at an instant: from when, until when, and for how many more. */
export type Standing =
  | { state: 'open'; until: number | null; left: number | null }
  | { state: 'notYet'; at: number }
  | { state: 'over'; at: number }
  | { state: 'full' };

/** @param asked how many have asked already; what was withdrawn does not count */
export function standingOf(
  opening: Opening | null,
  { now, asked }: { now: number; asked: number },
): Standing {
  const { from, until, most } = opening ?? { from: null, until: null, most: null };
  if (until !== null && now >= until) return { state: 'over', at: until };
  if (from !== null && now < from) return { state: 'notYet', at: from };
  if (most !== null && asked >= most) return { state: 'full' };
  return { state: 'open', until, left: most === null ? null : most - asked };
}

/** What is wrong with an opening, as codes: it ends before it begins, or nobody could ask. */
export function checkOpening(opening: Opening | null): ('endsFirst' | 'badMost')[] {
  if (!opening) return [];
  const { from, until, most } = opening;
  return [
    ...(from !== null && until !== null && until <= from ? (['endsFirst'] as const) : []),
    ...(most !== null && !(Number.isInteger(most) && most >= 1) ? (['badMost'] as const) : []),
  ];
}
