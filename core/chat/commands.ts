/** What can be done to a ticket from chat: by a button on its message, or by the form that the button opens. */
export const TICKET_COMMANDS = [
  'take',
  'finish',
  'give',
  'confirm',
  'reopen',
  'urgency',
  'write',
  'note',
  'none',
] as const;
/** Something that can be done to a ticket from chat. */
export type TicketCommand = (typeof TICKET_COMMANDS)[number];

/** What comes back from chat as a command; null: there is none of that name, and nothing is to be done. */
export function readTicketCommand(name: unknown): TicketCommand | null {
  return TICKET_COMMANDS.find((command) => command === name) ?? null;
}
