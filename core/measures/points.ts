import { bucketOf } from './buckets';

/** What earns points: never mere counts of answers. */
export type Deed = 'doneInTime' | 'articleHelped' | 'firstToTake' | 'goodRating';

/** What a season is: [from, to), what a deed is worth in it (absent: nothing), and how much one day may bring (null: any). */
export type Scheme = {
  from: number;
  to: number;
  zone: string;
  earns: Partial<Record<Deed, number>>;
  mostADay: number | null;
};

/** Someone's points, and their place: one more than the number of people with more. */
export type Place = { personId: string; points: number; place: number };

/** The points of a season by place, then by person. A day's sum is cut at what a day may bring, the whole at zero. */
export function points(
  entries: { personId: string; at: number; deed: Deed }[],
  { from, to, zone, earns, mostADay }: Scheme,
): Place[] {
  const days = new Map<string, Map<number, number>>();
  for (const { personId, at, deed } of entries) {
    if (at < from || at >= to) continue;
    let own = days.get(personId);
    if (!own) days.set(personId, (own = new Map<number, number>()));
    const day = bucketOf(at, 'day', zone);
    own.set(day, (own.get(day) ?? 0) + (earns[deed] ?? 0));
  }
  const most = mostADay ?? Infinity;
  const all = [...days].map(([personId, own]) => {
    const sum = [...own.values()].reduce((total, each) => total + Math.min(most, each), 0);
    return { personId, points: Math.max(0, sum) };
  });
  return all
    .map((each) => ({ ...each, place: 1 + all.filter((other) => other.points > each.points).length }))
    .sort((a, b) => a.place - b.place || (a.personId < b.personId ? -1 : a.personId > b.personId ? 1 : 0));
}

/** What someone sees: their own row and those above it, none beside or below, so nobody learns who is last. */
export function seenBy(places: Place[], personId: string): Place[] {
  const own = places.find((each) => each.personId === personId);
  return own ? places.filter((each) => each === own || each.place < own.place) : [];
}
