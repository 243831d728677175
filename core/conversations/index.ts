export { afterSilence, type Silence, type SilenceTimes } from './silence';
export { CONVERSATION_STATES, mayComeBack, whoWaits, type ConversationState } from './states';
