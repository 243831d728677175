import type { Consumer } from './journal/consumer';
import { chatConsumer } from './chat/consumer';
import { chatTold } from './chat/told';
import { clocksConsumer } from './clocks/consumer';
import { createTellingConsumer } from './notifications/consumer';
import { decidingConsumer } from './approvals/consumer';
import { factsConsumer } from './measures/facts';
import { hoursConsumer } from './hours/consumer';
import { mailTold } from './mail/tell';
import { problemsConsumer } from './problems/back';
import { routingConsumer } from './routing/consumer';
import { rulesConsumer } from './rules/consumer';
import { talkingConsumer } from './assistant/consumer';
import { togetherConsumer } from './together/under';
import { progressConsumer } from './tickets/progressConsumer';
import { waitingConsumer } from './tickets/waitingConsumer';
import { webhooksConsumer } from './webhooks/consumer';

/** Tells people in the application, by mail and in chat. */
export const tellingConsumer = createTellingConsumer([mailTold, chatTold]);

/** What follows from the journal, in the order in which it is looked at. */
export const INWARD: Consumer[] = [
  decidingConsumer,
  talkingConsumer,
  rulesConsumer,
  hoursConsumer,
  routingConsumer,
  progressConsumer,
  clocksConsumer,
  waitingConsumer,
  togetherConsumer,
  problemsConsumer,
  tellingConsumer,
  factsConsumer,
];
/** What leaves the application. */
export const OUTWARD: Consumer[] = [chatConsumer, webhooksConsumer];
