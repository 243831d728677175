import { useSearchParams } from 'react-router';
import { now } from '../api/clock';

const DAY = 86_400_000;
const USUAL_DAYS = 30;

export const toDay = (at: number): string => new Date(at).toISOString().slice(0, 10);

/** The period and the target that a page is about, kept in its address. */
export function usePeriod() {
  const [search, setSearch] = useSearchParams();
  const fromDay = search.get('from') ?? toDay(now() - USUAL_DAYS * DAY);
  const toDayOf = search.get('to') ?? toDay(now());
  return {
    targetId: search.get('target'),
    ...{ fromDay, toDay: toDayOf },
    from: Date.parse(`${fromDay}T00:00:00Z`),
    /** The last day is in it. */
    to: Date.parse(`${toDayOf}T00:00:00Z`) + DAY,
    search,
    set(change: Record<string, string | null>): void {
      const next = new URLSearchParams(search);
      for (const [name, value] of Object.entries(change)) {
        if (value === null) next.delete(name);
        else next.set(name, value);
      }
      setSearch(next, { replace: true });
    },
  };
}
