export { asksFor } from './asksFor';
export type { Condition, Fields, Scalar } from './types';
export { holds, setWordTest, toTest, type Test, type WordTest } from './holds';
export { listFields } from './listFields';
export { ALWAYS, isNever, NEVER, simplify } from './simplify';
export { toSql, type Column, type Compiled } from './toSql';
