import { listFields } from '../conditions';
import { isWebAddress } from './checkAnswers';
import { readPattern } from './pattern';
import {
  LANGUAGES,
  type Choice,
  type Column,
  type FormDefinition,
  type FormField,
  type LocalText,
} from './types';

/** What can be wrong with a form, by code. */
export type FormProblemCode =
  | 'noName'
  | 'badName'
  | 'sameName'
  | 'noLabel'
  | 'noChoices'
  | 'sameChoice'
  | 'noColumns'
  | 'unknownField'
  | 'asksForLater'
  | 'badPattern'
  | 'badLink'
  | 'leastOverMost';
/** `field` is the stored name of the question; `other` the one that it is about. */
export type FormProblem = { code: FormProblemCode; field: string; other?: string };

/** What a question may be stored as: conditions, plans and messages that go out name it so. */
const NAME = /^[a-z][A-Za-z0-9_]{0,39}$/;
const RESERVED = new Set(['title', '__proto__', 'constructor']);

/** Whether a question can have such a name: one that conditions know already is taken. */
export function isFieldName(name: string): boolean {
  return NAME.test(name) && !RESERVED.has(name);
}

const isSaid = (text: LocalText): boolean => LANGUAGES.every((language) => text[language].trim() !== '');

function* checkChoices(choices: Choice[] | undefined): Generator<FormProblemCode> {
  if (!choices || choices.length === 0) yield 'noChoices';
  const values = (choices ?? []).map(({ value }) => value);
  if (new Set(values).size < values.length || values.includes('')) yield 'sameChoice';
  if (!(choices ?? []).every(({ label }) => isSaid(label))) yield 'noLabel';
}

function* checkColumns(columns: Column[] | undefined): Generator<FormProblemCode> {
  if (!columns || columns.length === 0) yield 'noColumns';
  const names = (columns ?? []).map(({ name }) => name);
  if (new Set(names).size < names.length) yield 'sameName';
  for (const { name, label, kind, choices } of columns ?? []) {
    if (!isFieldName(name)) yield 'badName';
    if (!isSaid(label)) yield 'noLabel';
    if (kind === 'choice') yield* checkChoices(choices);
  }
}

function* checkField(field: FormField): Generator<FormProblemCode> {
  const { name, label, kind, pattern, least, most } = field;
  if (name === '') yield 'noName';
  else if (!isFieldName(name)) yield 'badName';
  if (!isSaid(label)) yield 'noLabel';
  if (kind === 'choice' || kind === 'choices') yield* checkChoices(field.choices);
  if (kind === 'table') yield* checkColumns(field.columns);
  if (pattern !== undefined && readPattern(pattern) === null) yield 'badPattern';
  if (field.helpLink && !isWebAddress(field.helpLink)) yield 'badLink';
  if (least !== undefined && most !== undefined && least > most) yield 'leastOverMost';
}

/** What a form's conditions ask for that it does not ask before: they could never be judged as one fills it in. */
function* checkConditions({ fields }: FormDefinition): Generator<FormProblem> {
  for (const [i, field] of fields.entries())
    for (const condition of [field.shownWhen, field.neededWhen])
      for (const other of condition ? new Set(listFields(condition)) : []) {
        const at = fields.findIndex(({ name }) => name === other);
        if (at === -1) yield { code: 'unknownField', field: field.name, other };
        else if (at >= i) yield { code: 'asksForLater', field: field.name, other };
      }
}

/** What is wrong with a form as it is defined: each once a question, in the order of the questions. */
export function checkForm(form: FormDefinition): FormProblem[] {
  const seen = new Set<string>();
  const problems: FormProblem[] = form.fields.flatMap((field) => {
    const codes = new Set(checkField(field));
    if (field.name !== '' && seen.has(field.name)) codes.add('sameName');
    seen.add(field.name);
    return [...codes].map((code) => ({ code, field: field.name }));
  });
  return [...problems, ...checkConditions(form)];
}
