/** A number sign and a ticket's number, not part of a longer word or address. */
export const TICKET_NUMBER = /(?<![\w#&/])#(\d{5,15})\b/g;

/**
 * The tickets that some words name, each once, in their order.
 * @example findTicketNumbers('the same as #18402, see #18377') // [18402, 18377]
 */
export function findTicketNumbers(text: string): number[] {
  return [...new Set([...text.matchAll(TICKET_NUMBER)].map(([, digits]) => Number(digits)))];
}
