import type { CompiledCalendar } from '../calendar';
import { joined } from './slot';
import type { Outage } from './types';

/** How much of the promised time was kept; durations in working ms. */
export type ServiceTime = {
  promised: number;
  lost: number;
  /** 1 − lost / promised; 1 where nothing is promised. */
  share: number;
  failures: number;
  /** Mean time between failures; null where there are none. */
  betweenFailures: number | null;
  /** Mean time to restore; null where there are none. */
  toRestore: number | null;
};

/**
 * What was promised by a calendar within [from, to), and what outages took of it. Outages that touch or overlap are
 * one; what costs no promised time is no failure. An outage without end lasts until `to`.
 */
export function serviceTime(
  outages: Outage[],
  calendar: CompiledCalendar,
  from: number,
  to: number,
): ServiceTime {
  const promised = to > from ? calendar.workingBetween(from, to) : 0;
  const stretches = outages
    .map((outage) => ({ from: outage.from, to: outage.to ?? to }))
    .filter((outage) => outage.to > outage.from);
  const costs = joined(stretches)
    .map((outage) => ({ from: Math.max(from, outage.from), to: Math.min(to, outage.to) }))
    .filter((outage) => outage.to > outage.from)
    .map((outage) => calendar.workingBetween(outage.from, outage.to))
    .filter((cost) => cost > 0);
  const lost = costs.reduce((sum, cost) => sum + cost, 0);
  const failures = costs.length;
  return {
    ...{ promised, lost, failures },
    share: promised > 0 ? 1 - lost / promised : 1,
    betweenFailures: failures > 0 ? (promised - lost) / failures : null,
    toRestore: failures > 0 ? lost / failures : null,
  };
}
