export { createAxis, type Axis, type AxisPiece } from './axis';
