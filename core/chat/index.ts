export {
  asConversation,
  isQuestion,
  isTakingBack,
  MOST_LINES,
  readAddressed,
  readTaken,
  toTitle,
} from './words';
export { listCalled, splitCalls } from './called';
export { listNotInChat, readValues, toChatFields, type Listed } from './questions';
export { mayLeave, type Place } from './mayLeave';
export { overUpTo, takeInOrder, takeTurn, type Known } from './order';
export type { Card, CardAction, ChatField, ChatForm } from './types';
export {
  NOTICE_EVENTS,
  writeNotice,
  findUnknownNoticeBlanks,
  NOTICE_BLANKS,
  type NoticeEvent,
} from './notice';
export { isQuiet, type QuietHours } from './quiet';
export { readTicketCommand, TICKET_COMMANDS, type TicketCommand } from './commands';
