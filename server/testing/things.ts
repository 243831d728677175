import { toMark } from '../../core/estate';
import type { ThingKindRow, ThingRow } from '../estate/model';

/** A thing as it is stored, with nothing known of it but what is said. */
export function thingRow({ id, ...said }: { id: string } & Partial<ThingRow>): ThingRow {
  return {
    ...{ id, kindId: 'laptop', name: id, tag: '', serial: '', model: '', state: 'inUse' },
    ...{
      ownerId: null,
      holderId: null,
      siteId: null,
      department: null,
      lentUntil: null,
      place: '',
      vessel: '',
    },
    ...{ teamId: null, cost: null, boughtOn: null, warrantyUntil: null, contract: '', isWatched: false },
    ...{ dependable: null, fields: {}, handedAt: null, confirmedAt: null, claim: null, claimAt: null },
    ...{ seenAt: null, version: 1 },
    ...said,
    tagMark: toMark(said.tag ?? '') || null,
    serialMark: toMark(said.serial ?? '') || null,
  };
}

/** A kind of things that everyone sees and every team keeps, unless it is said otherwise. */
export function kindRow({ id, ...said }: { id: string } & Partial<ThingKindRow>): ThingKindRow {
  return {
    ...{
      id,
      name: { en: id, pt: id },
      form: { fields: [] },
      seenBy: 'everyone',
      keptBy: [],
      isHandedOut: true,
    },
    ...{ serviceId: null, months: null, position: 0, version: 1 },
    ...said,
  };
}
