export { findChecks, setCheck, type Check } from './checks';
export { findMentions, toPlain, writeMention, type Mention } from './mentions';
export { findTicketNumbers, TICKET_NUMBER } from './ticketNumbers';
export { composeText } from './composeText';
export { isTooNested, parseMarkdown } from './markdown';
