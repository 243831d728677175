import type { Hangs, Thing, ThingCard } from '../../contract/estate';
import { BIA } from './show';

/** Things as the server answers them, for the pages that show them. */
export const NOW = Date.now();
export const DAY = 86_400_000;
/** Someone of a team, who sees the Estate. */
export const KEEPER = { ...BIA, areas: [...BIA.areas, 'estate' as const] };
export const both = (text: string) => ({ en: text, pt: text });
export const TOMAS = { id: 'tomas', name: 'Tomás Veiga', goesFirst: false };

export const card = (id: string, given: Partial<ThingCard> = {}): ThingCard => ({
  ...{
    id,
    name: `Laptop ${id}`,
    tag: id,
    serial: '',
    model: 'Tern 14',
    kindId: 'laptop',
    kind: both('Laptop'),
  },
  ...{ state: 'inUse', holder: TOMAS, site: { id: 'alder', name: 'Port Alder' }, place: '', vessel: '' },
  ...{ warrantyUntil: null, lentUntil: null, isWatched: false, openTickets: 0, claim: null },
  ...given,
});
export const thing = (given: Partial<Thing> = {}): Thing => ({
  ...card('L-1'),
  ...{ ownerId: null, siteId: 'alder', teamId: null, cost: 120_000, boughtOn: '2026-01-15', contract: '' },
  ...{ dependable: null, fields: {}, version: 4, owner: null, team: null, answers: [], mayKeep: true },
  ...{ isHandedOut: true, acts: ['handOver', 'takeBack', 'retire'], handedAt: NOW - DAY, confirmedAt: null },
  ...{ seenAt: null, worth: 90_000, tickets: [], ticketCount: 0, history: [] },
  ...given,
});
export const HANGS: Hangs = {
  ...{ standing: 'up', needs: [], neededBy: [], neededByCount: 0, alone: [], availability: null },
  falls: { down: [], downCount: 0, weakened: [], weakenedCount: 0, watched: [], people: 0 },
  isTooEntangled: false,
};
export const ref = (id: string, standing: 'up' | 'weakened' | 'down' = 'up') =>
  ({ id, name: id, kind: both('Line'), state: 'inUse', standing }) as const;
export const NO_WORRY = { claimed: 0, overdue: 0, unseen: 0, warranty: 0 };
export const page = (rows: ThingCard[], attention = NO_WORRY) => ({
  rows,
  after: null,
  count: rows.length,
  attention,
});
