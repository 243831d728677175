export { chooseProcedure, findPlace } from './procedures';
export type { ProcedureFor, ProcedurePlace, ProcedureStep } from './procedures';
