export { READERS, TELLING, TOLD_EVENTS, whoIsTold } from './telling';
export type { Parties, Reader, ToldEvent } from './telling';
