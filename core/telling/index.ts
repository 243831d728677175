export { isNews, READERS, TELLING, TOLD_EVENTS, whoIsTold } from './telling';
export { isMailed } from './byMail';
export type { Parties, Reader, ToldEvent } from './telling';
