import type { Condition } from '../conditions';

/** The languages that the application is complete in. */
export const LANGUAGES = ['en', 'pt'] as const;
export type Language = (typeof LANGUAGES)[number];
export type LocalText = Record<Language, string>;

export const FIELD_KINDS = [
  'text',
  'longText',
  'number',
  'choice',
  'yesNo',
  'date',
  'place',
  'files',
  'links',
] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

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

/** One question of a service's form. `name` is stored and technical, `label` is in the employee's words. */
export type FormField = {
  name: string;
  kind: FieldKind;
  label: LocalText;
  help?: LocalText;
  needed: boolean;
  shownWhen?: Condition;
  filledFrom?: KnownFact;
  choices?: { value: string; label: LocalText }[];
  /** For text, the most characters; for numbers, the greatest value. */
  most?: number;
  least?: number;
};

export type FormDefinition = { fields: FormField[] };

export type AnswerLink = { url: string; name: string };
export type AnswerValue = string | number | boolean | string[] | AnswerLink[] | null;
export type Answers = Record<string, AnswerValue>;
