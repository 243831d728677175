/** What a ticket is: something broken, something asked for, the cause behind incidents, work on what is run. */
export const TICKET_KINDS = ['incident', 'request', 'problem', 'change'] as const;
/** What a ticket is. */
export type TicketKind = (typeof TICKET_KINDS)[number];

/** What employees ask for and report. Problems and changes are the teams' own. */
export const ASKED_KINDS = ['incident', 'request'] as const satisfies readonly TicketKind[];

/** Whether tickets of a kind are raised by those who work in teams alone. @example isInward('change') // true */
export const isInward = (kind: TicketKind): boolean => kind === 'problem' || kind === 'change';
