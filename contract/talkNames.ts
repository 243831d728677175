/** What an agent can be shown of who asks, with an offer. */
export const OFFER_FACTS = [
  'title',
  'site',
  'place',
  'device',
  'vessel',
  'openTickets',
  'goesFirst',
] as const;
/** Something that an agent is shown with an offer. */
export type OfferFact = (typeof OFFER_FACTS)[number];
/** Whether an agent takes conversations, apart from tickets. */
export const CHAT_PRESENCES = ['available', 'busy', 'away'] as const;
/** How they are alerted of an offer. */
export const ALERTS = ['sound', 'title', 'none'] as const;
