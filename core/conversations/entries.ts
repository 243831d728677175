import type { LocalText } from '../forms';

/** What each kind of entry of a conversation carries beside its author and its text. */
export type ConversationEntryData = {
  /** `from`: the page on which the conversation began; `isWhy`: why it is handed over, for the agents alone. */
  words: { from?: string | null; fileIds?: string[]; isWhy?: boolean };
  taken: Nothing;
  /** An agent did not want it. */
  passed: Nothing;
  /** An agent did not take it up in time. */
  ranOut: Nothing;
  /** `offeredTo`: who did not take an offer up. */
  waiting: { offeredTo?: string };
  /** To someone by name, or to a line. */
  handing: { to?: string; line?: LocalText };
  handed: Nothing;
  notHanded: Nothing;
  invited: { who: string };
  asked: Nothing;
  ended: { by: string };
  returned: Nothing;
  /** `isMade`: it was made of the conversation; else it was there before. */
  ticket: { number: number; isMade: boolean };
  device: { tag: string; name: string };
};
type Nothing = object;

/** What can happen in a conversation. */
export type ConversationEntryKind = keyof ConversationEntryData;

/** All that can happen in a conversation, with whether it is an event with words of its own, beside what was said. */
const KINDS = {
  words: false,
  taken: true,
  passed: true,
  ranOut: true,
  waiting: true,
  handing: true,
  handed: true,
  notHanded: true,
  invited: true,
  asked: true,
  ended: true,
  returned: true,
  ticket: true,
  device: true,
} as const satisfies Record<ConversationEntryKind, boolean>;
/** All that can happen in a conversation. */
export const CONVERSATION_ENTRY_KINDS = Object.keys(KINDS) as [
  ConversationEntryKind,
  ...ConversationEntryKind[],
];
/** What happens in a conversation beside what is said; each has its words in every language. */
export type ConversationEventKind = {
  [Kind in ConversationEntryKind]: (typeof KINDS)[Kind] extends true ? Kind : never;
}[ConversationEntryKind];

/** An entry of one kind with what that kind carries. */
export type ConversationHappened = {
  [Kind in ConversationEntryKind]: { type: Kind; data: ConversationEntryData[Kind] };
}[ConversationEntryKind];

/** An entry that is about to be recorded. */
export type NewConversationEntry = {
  [Kind in ConversationEntryKind]: { type: Kind } & (Nothing extends ConversationEntryData[Kind]
    ? { data?: ConversationEntryData[Kind] }
    : { data: ConversationEntryData[Kind] });
}[ConversationEntryKind];

/** All that entries may carry, for what reads them whatever their kind. */
export type ConversationFacts = Partial<
  ConversationEntryData['words'] &
    ConversationEntryData['waiting'] &
    ConversationEntryData['handing'] &
    ConversationEntryData['invited'] &
    ConversationEntryData['ended'] &
    ConversationEntryData['ticket'] &
    ConversationEntryData['device']
>;

/** What an entry carries, for what reads entries whatever their kind. */
export function factsOfConversationEntry({
  data,
}: {
  data: ConversationHappened['data'];
}): ConversationFacts {
  return data;
}
