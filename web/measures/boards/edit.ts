import { nanoid } from 'nanoid';
import {
  chartOf,
  getFactField,
  listFactFields,
  reckonedBy,
  showsFor,
  type Chart,
  type FactKind,
  type What,
} from '../../../core/measures';
import { LIST_FIELD_NAMES, type ListFieldName } from '../../../core/worklist';
import { SHARES } from './shares';

/** What a chart can say of facts, by the name under which it is chosen. */
export const WHATS = ['count', 'median', 'mean', 'p90', 'sum', 'share'] as const;
/** The name under which it is chosen what a chart says. */
export type WhatName = (typeof WHATS)[number];

const HOUR = 3_600_000;

/** A new chart: how many tickets of each team. */
export const newChart = (): Chart => ({ ...chartOf('tickets', 'bars', { by: 'teamId' }), id: nanoid(8) });

/** A chart as it is after a part of it was changed: drawn in a way that still fits. */
export function withPart(chart: Chart, part: Partial<Chart>): Chart {
  const next = { ...chart, ...part };
  const shows = showsFor(next);
  return shows.includes(next.show) ? next : { ...next, show: shows[0]! };
}

/** A chart of other facts: what the others do not have is left behind. */
export function withFacts(chart: Chart, of: FactKind): Chart {
  const has = (name: string | null): boolean => name !== null && getFactField(of, name) !== null;
  const { by, at } = chart;
  const field = reckonedBy(chart);
  const keepsWhat = chart.what === 'count' || (field !== null && has(field));
  return withPart(chart, {
    ...{ of, where: { all: [] }, what: keepsWhat ? chart.what : 'count' },
    by: has(by) ? by : null,
    at: has(at) ? at : listFactFields(of, 'instant')[0]!,
  });
}

export const whatName = ({ what }: Pick<Chart, 'what'>): WhatName =>
  what === 'count' ? 'count' : (Object.keys(what)[0] as WhatName);

/** The fields that a chart can reckon with. */
export const listReckoned = (of: FactKind): string[] => [
  ...listFactFields(of, 'length'),
  ...listFactFields(of, 'amount'),
];

/** A chart that says something else of its facts. */
export function withWhat(chart: Chart, name: WhatName): Chart {
  const field = reckonedBy(chart) ?? listReckoned(chart.of)[0];
  const share = Object.values(SHARES[chart.of] ?? {})[0] ?? { all: [] };
  const what = name === 'count' ? 'count' : name === 'share' ? { share } : ({ [name]: field } as What);
  return withPart(chart, { what, aim: null });
}

/** What can be said of facts: where they have nothing to reckon with, only how many they are. */
export const listWhats = (of: FactKind): WhatName[] =>
  WHATS.filter(
    (name) => name === 'count' || (name === 'share' ? SHARES[of] !== undefined : listReckoned(of).length > 0),
  );

/** The fields of lists that a condition on facts may ask for. */
export const listAskable = (of: FactKind): ListFieldName[] =>
  LIST_FIELD_NAMES.filter((name) => getFactField(of, name)?.is === 'split');

/** An aim as it is typed: lengths in hours. */
export const fromAim = (chart: Chart, isLength: boolean): string =>
  chart.aim === null ? '' : String(isLength ? chart.aim / HOUR : chart.aim);

/** What was typed as an aim; null: none, or no number. */
export function toAim(text: string, isLength: boolean): number | null {
  const value = Number(text.replace(',', '.'));
  if (text.trim() === '' || !Number.isFinite(value)) return null;
  return isLength ? value * HOUR : value;
}
