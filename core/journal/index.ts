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
export {
  isShown,
  SETTING_ENTRIES,
  SETTING_ENTRY_KINDS,
  TICKET_ENTRIES,
  TICKET_ENTRY_KINDS,
  toldOf,
  type SettingEntryKind,
  type ShownKind,
} from './kinds';
export { changesFor, inOne } from './changes';
export type { Audience, Changes, Via } from './types';
