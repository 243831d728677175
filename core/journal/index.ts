export type { SettingEntryData, TicketEntryData } from './data';
export type {
  ChangeEntry,
  EntryData,
  EntryFacts,
  EntryFrame,
  EntryKind,
  Happened,
  JournalEntry,
  NewEntry,
  NewSettingEntry,
  StepEntry,
  TicketEntryKind,
} from './entry';
export { aboutOf, factsOfEntry } from './entry';
export { isShown, TICKET_ENTRIES, TICKET_ENTRY_KINDS, toldOf, type ShownKind } from './kinds';
export { changesFor, inOne } from './changes';
export type { Audience, Changes, Via } from './types';
