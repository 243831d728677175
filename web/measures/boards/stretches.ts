import type { Stretch, Unit } from '../../../core/measures';

/** The stretches that are offered. */
export const STRETCHES: Stretch[] = [
  { last: 1, unit: 'day' },
  { last: 7, unit: 'day' },
  { last: 30, unit: 'day' },
  { last: 1, unit: 'week' },
  { last: 4, unit: 'week' },
  { last: 8, unit: 'week' },
  { last: 12, unit: 'week' },
  { last: 26, unit: 'week' },
  { last: 1, unit: 'month' },
  { last: 6, unit: 'month' },
  { last: 12, unit: 'month' },
  { last: 1, unit: 'quarter' },
  { last: 4, unit: 'quarter' },
  { last: 1, unit: 'year' },
  { last: 3, unit: 'year' },
];

/** A stretch as it stands in an address or a choice; null where that says none. @example toStretch('12 week') */
export function toStretch(text: string | null): Stretch | null {
  const found = /^(\d{1,4}) (hour|day|week|month|quarter|year)$/.exec(text ?? '');
  return found ? { last: Math.max(1, Number(found[1])), unit: found[2] as Unit } : null;
}
