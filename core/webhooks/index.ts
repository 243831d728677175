export { checkSubscription, WEBHOOK_KINDS, hearsOf, toEventType } from './events';
export type { Subscription } from './events';
export { isTaken, LONGEST_ASKED_MS, nextOf, parseRetryAfter, PAUSES_MS } from './retry';
export type { Next, Outcome } from './retry';
