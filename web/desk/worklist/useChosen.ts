import { useState } from 'react';
import type { ListRow } from '../../../contract/worklists';

export type Chosen = {
  numbers: number[];
  /** Whether all that the list lets through is meant, shown or not. */
  isAll: boolean;
  count: number;
  has(row: ListRow): boolean;
  /** With `isRange`: all rows from the one chosen last to this one. */
  toggle(row: ListRow, isRange: boolean): void;
  chooseShown(): void;
  chooseAll(): void;
  clear(): void;
};

/** Which tickets of a list are chosen for doing something to all of them. Steps are done where they are. */
export function useChosen(rows: ListRow[]): Chosen {
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [isAll, setAll] = useState(false);
  const [anchor, setAnchor] = useState<number | null>(null);
  const getTickets = (): ListRow[] => rows.filter(({ step }) => step === null);
  return {
    numbers: [...chosen],
    isAll,
    count: chosen.size,
    has: ({ number, step }) => step === null && (isAll || chosen.has(number)),
    toggle({ number }, isRange) {
      const next = new Set(chosen);
      const tickets = getTickets();
      const from = isRange && anchor !== null ? tickets.findIndex((row) => row.number === anchor) : -1;
      const to = tickets.findIndex((row) => row.number === number);
      if (from >= 0)
        for (const row of tickets.slice(Math.min(from, to), Math.max(from, to) + 1)) next.add(row.number);
      else if (next.has(number)) next.delete(number);
      else next.add(number);
      setChosen(next);
      setAll(false);
      setAnchor(number);
    },
    chooseShown: () => setChosen(new Set(getTickets().map(({ number }) => number))),
    chooseAll() {
      setChosen(new Set(getTickets().map(({ number }) => number)));
      setAll(true);
    },
    clear() {
      setChosen(new Set());
      setAll(false);
      setAnchor(null);
    },
  };
}
