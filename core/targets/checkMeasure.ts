import { holds, listFields, type Condition } from '../conditions';

/** What a target can be about. */
export type Measured = 'firstAnswer' | 'takenUp' | 'resolution' | 'delivery' | 'decision';

/** What has happened when a target of this kind is met: the fields that say so. Deliveries end in many ways. */
const MET_BY: Record<Exclude<Measured, 'delivery'>, Record<string, unknown>> = {
  firstAnswer: { answered: true, state: 'inWork' },
  takenUp: { takenUp: true, assigneeId: 'someone', state: 'inWork' },
  resolution: { state: 'done' },
  decision: { outcome: 'approved' },
};
/** Of those fields, the ones that the end of the target must ask for. */
const ASKED: Record<keyof typeof MET_BY, readonly string[]> = {
  firstAnswer: ['answered'],
  takenUp: ['takenUp', 'assigneeId', 'answered'],
  resolution: ['state'],
  decision: ['outcome'],
};

/**
 * Whether a target stops at what it is about: one for a first answer that runs until all is done would tell something
 * else than its name.
 * @example stopsAtItsMeasure('firstAnswer', { field: 'state', op: 'is', value: 'done' }) // false
 */
export function stopsAtItsMeasure(measures: Measured, stopWhen: Condition): boolean {
  if (measures === 'delivery') return true;
  const asked = listFields(stopWhen);
  return ASKED[measures].some((field) => asked.includes(field)) && holds(stopWhen, MET_BY[measures]);
}
