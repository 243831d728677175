import type { Condition } from '../conditions';

/** The languages that the application is complete in. */
export const LANGUAGES = ['en', 'pt'] as const;
/** A language of the interface, by its ISO 639-1 code. */
export type Language = (typeof LANGUAGES)[number];
/** Whose way of writing days and numbers each follows. */
export const LOCALES: Record<Language, string> = { en: 'en-GB', pt: 'pt-PT' };
/** A text in every language; one that is not written in is empty. */
export type LocalText = Record<Language, string>;

/** The kinds of questions that a form may ask. */
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
/** A kind of question. */
export type FieldKind = (typeof FIELD_KINDS)[number];

/** What a column of a table may ask for. */
export const COLUMN_KINDS = ['text', 'number', 'choice', 'date', 'yesNo'] as const;
/** What a column of a table question holds. */
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
/** Something of a person that forms can be filled with. */
export type KnownFact = (typeof KNOWN_FACTS)[number];
/** What is known of a person, for forms. */
export type KnownFacts = Partial<Record<KnownFact, string>>;

/** One of the answers that a question offers: how it is kept, how it reads. */
export type Choice = { value: string; label: LocalText };
/** A column of a table question. */
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

/** The questions of a form, in their order. */
export type FormDefinition = { fields: FormField[] };

/** A web address given as an answer, with how it is called. */
export type AnswerLink = { url: string; name: string };
/** A person or a thing that was chosen, with its name at that time. */
export type Named = { id: string; name: string };
/** Both days belong to it. */
export type DateRange = { from: string; to: string };
/** A row of a table answer, by the names of its columns. */
export type TableRow = Record<string, string | number | boolean | null>;
/** An answer, as its kind of question has it; null: none was given. */
export type AnswerValue =
  string | number | boolean | string[] | AnswerLink[] | TableRow[] | Named | DateRange | null;
/** What was answered, by the names of the questions. */
export type Answers = Record<string, AnswerValue>;
