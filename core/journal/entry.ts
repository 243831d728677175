import type { SettingEntryData, TicketEntryData } from './data';
import type { Audience, Changes, Via } from './types';

/** What each kind of entry carries. */
export type EntryData = TicketEntryData & SettingEntryData;
/** The kinds of entries of tickets. */
export type TicketEntryKind = keyof TicketEntryData;
/** The kinds of all entries. */
export type EntryKind = keyof EntryData;

/** What happened to a ticket, of one kind, with what that kind carries. */
type TicketEntryOf<Kind extends TicketEntryKind> = {
  type: Kind;
  ticketNumber: number;
  data: TicketEntryData[Kind];
};
/** What happened to a setting. */
type SettingEntryOf<Kind extends keyof SettingEntryData> = {
  type: Kind;
  ticketNumber: null;
  data: SettingEntryData[Kind];
};

/** The kind of an entry with the data of that kind. Whoever asks for the kind has the data by it. */
export type Happened =
  | { [Kind in TicketEntryKind]: TicketEntryOf<Kind> }[TicketEntryKind]
  | { [Kind in keyof SettingEntryData]: SettingEntryOf<Kind> }[keyof SettingEntryData];

/** What all entries have: when, who (null: by itself), by which way, who may read it and what became of which fields. */
export type EntryFrame = {
  at: number;
  actorId: string | null;
  via: Via;
  /** Which piece of work of the ticket it is of: 'ticket' itself, 'approval:<id>' or 'step:<id>'; clocks are read by piece. */
  work: string;
  audience: Audience;
  changes: Changes;
  /** The rules in whose chain it was written, the oldest first; none: no rule did it. */
  byRules?: string[] | null;
  /** The thing or the person that a setting is about, by which its history is found. */
  aboutId?: string | null;
  /** By which key a program did it; none: a person did, or it came about by itself. */
  keyId?: string | null;
};

/** An entry of the journal: what happened, in order, never rewritten. */
export type JournalEntry = EntryFrame & Happened;

/** What an entry carries, which may be left out where nothing of it is needed. */
type Carries<Data> = Nothing extends Data ? { data?: Data } : { data: Data };
type Nothing = object;

/** What happened to a setting, to be appended. */
export type NewSettingEntry = {
  [Kind in keyof SettingEntryData]: { type: Kind; changes?: Changes } & Carries<SettingEntryData[Kind]>;
}[keyof SettingEntryData];

/** An entry that is about to be appended; what most entries say alike may be left out. */
export type NewEntry = Omit<EntryFrame, 'at' | 'work' | 'changes'> &
  Partial<Pick<EntryFrame, 'at' | 'work' | 'changes'>> &
  (
    | {
        [Kind in TicketEntryKind]: { type: Kind; ticketNumber: number } & Carries<TicketEntryData[Kind]>;
      }[TicketEntryKind]
    | (NewSettingEntry & { ticketNumber: null })
  );

/** The kinds that record a change of a ticket; their entries say which version came of it. */
type ChangeKind = {
  [Kind in TicketEntryKind]: TicketEntryData[Kind] extends { version: number } ? Kind : never;
}[TicketEntryKind];
/** A change of a ticket, before its version is known. */
export type ChangeEntry = {
  [Kind in ChangeKind]: { type: Kind } & Carries<Omit<TicketEntryData[Kind], 'version'>>;
}[ChangeKind];

/** What the entries of a step say of the step itself. */
type OfStep = 'stepId' | 'name' | 'reason';
type StepKind = Extract<TicketEntryKind, `step${string}`>;
/** A change of a step, without what names the step. */
export type StepEntry = {
  [Kind in StepKind]: { type: Kind } & Carries<Omit<TicketEntryData[Kind], OfStep>>;
}[StepKind];

/** What an entry carries, for what reads entries whatever their kind. */
export function factsOfEntry({ data }: { data: EntryData[EntryKind] }): EntryFacts {
  return data;
}

type NamesOf<Data> = Data extends unknown ? keyof Data : never;
type ValueOf<Data, Name extends PropertyKey> = Data extends unknown
  ? Name extends keyof Data
    ? Data[Name]
    : never
  : never;

/** The thing or the person that an entry about the organisation is about; null: none alone. */
export function aboutOf({ ticketNumber, data = {} }: NewEntry): string | null {
  const { thingId, noticeId, personId, programId } = data as EntryFacts;
  return ticketNumber === null ? (thingId ?? noticeId ?? personId ?? programId ?? null) : null;
}

/** All that entries may carry, for what reads them whatever their kind. */
export type EntryFacts = {
  [Name in NamesOf<EntryData[EntryKind]>]?: ValueOf<EntryData[EntryKind], Name> | undefined;
};
