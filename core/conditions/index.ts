export type { Condition, Fields, Scalar } from './types';
export { holds, toTest, type Test } from './holds';
export { listFields } from './listFields';
