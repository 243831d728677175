import type { Condition } from '../conditions';

/** The languages that the application is complete in. */
export const LANGUAGES = ['en', 'pt'] as const;
export type Language = (typeof LANGUAGES)[number];
/** Whose way of writing days and numbers each follows. */
export const LOCALES: Record<Language, string> = { en: 'en-GB', pt: 'pt-PT' };
export type LocalText = Record<Language, string>;

export const FIELD_KINDS = [
  'text',
  'longText',
  'number',
  'money',
  'choice',
  'choices',
  'yesNo',
  'date',
  'dateRange',
  'time',
  'person',
  'place',
  'asset',
  'files',
  'links',
  'table',
  'heading',
] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** What a column of a table may ask for. */
export const COLUMN_KINDS = ['text', 'number', 'choice', 'date', 'yesNo'] as const;
export type ColumnKind = (typeof COLUMN_KINDS)[number];

/** What is known about the person and can fill a field. */
export const KNOWN_FACTS = [
  'site',
  'place',
  'vessel',
  'device',
  'phone',
  'department',
  'costCentre',
] as const;
export type KnownFact = (typeof KNOWN_FACTS)[number];
export type KnownFacts = Partial<Record<KnownFact, string>>;

export type Choice = { value: string; label: LocalText };
export type Column = { name: string; kind: ColumnKind; label: LocalText; choices?: Choice[] };

/** One question of a service's form. `name` is stored and technical, `label` is in the employee's words. */
export type FormField = {
  name: string;
  kind: FieldKind;
  label: LocalText;
  help?: LocalText;
  /** Where the help leads on to. */
  helpLink?: string;
  needed: boolean;
  /** Needed only while this holds. */
  neededWhen?: Condition;
  shownWhen?: Condition;
  filledFrom?: KnownFact;
  /** What stands there before anything is said. */
  default?: string | number | boolean;
  choices?: Choice[];
  /** Of a table. */
  columns?: Column[];
  /** What a number counts. */
  unit?: LocalText;
  /** Which things an asset may be, by kind; absent: any. */
  assetKind?: string;
  /** For text, the most characters; for numbers, the greatest value; of choices and rows, how many. */
  most?: number;
  least?: number;
  /** A regular expression that the whole text must match, and what to say where it does not. */
  pattern?: string;
  patternWords?: LocalText;
  /** Of a heading: what follows it stands on a page of its own. */
  startsPage?: true;
};

export type FormDefinition = { fields: FormField[] };

export type AnswerLink = { url: string; name: string };
/** A person or a thing that was chosen, with its name at that time. */
export type Named = { id: string; name: string };
/** Both days belong to it. */
export type DateRange = { from: string; to: string };
export type TableRow = Record<string, string | number | boolean | null>;
export type AnswerValue =
  string | number | boolean | string[] | AnswerLink[] | TableRow[] | Named | DateRange | null;
export type Answers = Record<string, AnswerValue>;
