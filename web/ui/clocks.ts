import type { Clock } from '../../contract/clocks';
import type * as targets from '../../core/targets';

/** A ticket's clock as it stands at one instant. */
export type LiveClock = targets.LiveClock<Clock>;

/** The clock that promises the end. */
export function getPromise(clocks: Clock[]): Clock | null {
  return clocks.find(({ measures }) => measures === 'resolution') ?? null;
}
