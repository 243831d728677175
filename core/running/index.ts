export { judgePart, PARTS, STANDINGS, worstOf } from './judge';
export type { Part, Standing, Waiting } from './judge';
