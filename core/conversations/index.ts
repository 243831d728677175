export { afterSilence, type Silence, type SilenceTimes } from './silence';
export { CONVERSATION_STATES, mayComeBack, whoWaits, type ConversationState } from './states';
export { CONVERSATION_ENTRY_KINDS, factsOfConversationEntry } from './entries';
export type {
  ConversationEntryData,
  ConversationEntryKind,
  ConversationEventKind,
  ConversationFacts,
  ConversationHappened,
  NewConversationEntry,
} from './entries';
