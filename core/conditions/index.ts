export type { Condition, Fields, Scalar } from './types';
export { holds } from './holds';
