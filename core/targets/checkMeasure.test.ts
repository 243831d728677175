import type { Condition } from '../conditions';
import { STOPS, stopsAtItsMeasure, type Measured } from './index';

const among = (...value: string[]): Condition => ({ field: 'state', op: 'in', value });

test.each<[Measured, string, Condition, boolean]>([
  ['firstAnswer', 'the answer', STOPS.answered, true],
  ['firstAnswer', 'done', STOPS.finished, false],
  ['firstAnswer', 'the answer or done', { any: [STOPS.answered, STOPS.finished] }, true],
  ['firstAnswer', 'the answer once it is done', { all: [STOPS.answered, among('done')] }, false],
  ['firstAnswer', 'someone having it', STOPS.taken, false],
  ['takenUp', 'a person having begun', STOPS.takenUp, true],
  ['takenUp', 'someone having it', STOPS.taken, true],
  ['takenUp', 'done', STOPS.finished, false],
  ['resolution', 'done', STOPS.finished, true],
  ['resolution', 'closed alone', among('closed'), false],
  ['resolution', 'the answer', STOPS.answered, false],
  ['decision', 'the decision', STOPS.decided, true],
  ['decision', 'done', STOPS.finished, false],
  ['delivery', 'the supplier being back', STOPS.supplierBack, true],
])('a target for %s that stops at %s', (measures, _, stopWhen, expected) => {
  expect(stopsAtItsMeasure(measures, stopWhen)).toBe(expected);
});
