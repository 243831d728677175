export { createAxis, createAxisBetween, type Axis, type AxisPiece } from './axis';
