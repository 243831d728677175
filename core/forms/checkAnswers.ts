import { getOwn, setOwn } from '../records';
import { holds } from '../conditions';
import { findBadText } from '../text';
import { readPattern } from './pattern';
import type {
  AnswerLink,
  Answers,
  AnswerValue,
  Column,
  DateRange,
  FormDefinition,
  FormField,
  LocalText,
  Named,
  TableRow,
} from './types';

/** What can be wrong with an answer, by code. */
export type AnswerProblemCode =
  | 'missing'
  | 'badCharacter'
  | 'tooLong'
  | 'tooShort'
  | 'notANumber'
  | 'tooSmall'
  | 'tooLarge'
  | 'tooFew'
  | 'tooMany'
  | 'notAChoice'
  | 'notADate'
  | 'notATime'
  | 'endsTooSoon'
  | 'notALink'
  | 'doesNotMatch'
  | 'malformed';
/** `words`: the form's own, where it has some for this problem. */
export type AnswerProblem = { field: string; code: AnswerProblemCode; limit?: number; words?: LocalText };

/** Letters that a short text may have. */
export const TEXT_LIMIT = 200;
/** Letters that a long text may have. */
export const LONG_TEXT_LIMIT = 20_000;
const LINKS_LIMIT = 20;
/** Rows that a table may have. */
export const ROWS_LIMIT = 200;

type Checked = { value: AnswerValue } | Omit<AnswerProblem, 'field'>;
/** What can be asked of a field or of a column. */
type Asked = Pick<FormField, 'kind' | 'choices' | 'least' | 'most' | 'pattern' | 'patternWords' | 'columns'>;

function isBlank(value: AnswerValue | undefined): boolean {
  return (
    value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0)
  );
}

/** In characters as people count them more nearly: a pair of surrogates is one. */
const lengthOf = (text: string): number =>
  text.length - (text.match(/[\uD800-\uDBFF][\uDC00-\uDFFF]/g)?.length ?? 0);

function checkText(
  value: AnswerValue,
  limit: number,
  { least, pattern, patternWords }: Partial<Asked> = {},
): Checked {
  if (typeof value !== 'string') return { code: 'malformed' };
  if (findBadText(value)) return { code: 'badCharacter' };
  const length = lengthOf(value);
  if (length > limit) return { code: 'tooLong', limit };
  if (least !== undefined && length < least) return { code: 'tooShort', limit: least };
  if (pattern !== undefined && readPattern(pattern)?.test(value) === false)
    return { code: 'doesNotMatch', ...(patternWords && { words: patternWords }) };
  return { value };
}

function checkNumber(value: AnswerValue, { least, most }: Asked): Checked {
  const number = typeof value === 'string' && value.trim() !== '' ? Number(value) : value;
  if (typeof number !== 'number' || !Number.isFinite(number)) return { code: 'notANumber' };
  if (least !== undefined && number < least) return { code: 'tooSmall', limit: least };
  if (most !== undefined && number > most) return { code: 'tooLarge', limit: most };
  return { value: number };
}

/** Money is whole cents. */
function checkMoney(value: AnswerValue, asked: Asked): Checked {
  const checked = checkNumber(value, asked);
  return 'value' in checked && !Number.isSafeInteger(checked.value) ? { code: 'notANumber' } : checked;
}

/** Whether it is a day of the calendar as ISO 8601 writes it. @example isDate('2026-02-30') // false */
export function isDate(value: unknown): value is string {
  if (typeof value !== 'string' || !/^\d{4}-\d\d-\d\d$/.test(value)) return false;
  const date = new Date(`${value}T00:00:00Z`);
  return !Number.isNaN(date.getTime()) && date.toISOString().startsWith(value);
}

function checkDateRange(value: AnswerValue): Checked {
  const { from, to } = (typeof value === 'object' ? value : {}) as Partial<DateRange>;
  if (!isDate(from) || !isDate(to)) return { code: 'notADate' };
  return to < from ? { code: 'endsTooSoon' } : { value: { from, to } };
}

function checkChoices(value: AnswerValue, { choices = [], least, most }: Asked): Checked {
  if (!Array.isArray(value)) return { code: 'malformed' };
  const chosen = [...new Set(value as unknown[])];
  if (!chosen.every((each) => choices.some((choice) => choice.value === each))) return { code: 'notAChoice' };
  if (least !== undefined && chosen.length < least) return { code: 'tooFew', limit: least };
  if (most !== undefined && chosen.length > most) return { code: 'tooMany', limit: most };
  // In the order of the form, however they were clicked.
  return { value: choices.filter(({ value: each }) => chosen.includes(each)).map(({ value: each }) => each) };
}

function checkNamed(value: AnswerValue): Checked {
  const { id, name } = (typeof value === 'object' ? value : {}) as Partial<Named>;
  if (typeof id !== 'string' || id === '' || id.length > 40) return { code: 'malformed' };
  const words = checkText(name ?? '', TEXT_LIMIT);
  return 'value' in words ? { value: { id, name: words.value as string } } : words;
}

/** Whether it is a web address that may be shown as a link. */
export function isWebAddress(url: string): boolean {
  return ['http:', 'https:'].includes(protocolOf(url));
}

function protocolOf(url: string): string {
  try {
    return new URL(url).protocol;
  } catch {
    return '';
  }
}

function checkLinks(value: AnswerValue): Checked {
  if (!Array.isArray(value) || value.length > LINKS_LIMIT) return { code: 'malformed' };
  const given = value as (AnswerLink | string | null)[];
  const links = given.filter((link) => link !== null && typeof link === 'object');
  const isLink = ({ url, name }: AnswerLink): boolean =>
    typeof url === 'string' && typeof name === 'string' && name.length <= TEXT_LIMIT && isWebAddress(url);
  if (links.length < value.length || !links.every((link) => isLink(link))) return { code: 'notALink' };
  return links.some(({ url, name }) => findBadText(url + name)) ? { code: 'badCharacter' } : { value };
}

/** A row with each of its columns judged; rows without anything in them are left out. */
function checkTable(value: AnswerValue, { columns = [], least, most = ROWS_LIMIT }: Asked): Checked {
  if (!Array.isArray(value)) return { code: 'malformed' };
  const rows: TableRow[] = [];
  for (const given of value as unknown[]) {
    if (given === null || typeof given !== 'object') return { code: 'malformed' };
    const row: TableRow = {};
    for (const column of columns) {
      const cell = getOwn(given as TableRow, column.name) ?? null;
      if (isBlank(cell)) continue;
      const checked = checkAnswer(column satisfies Column, cell);
      if ('code' in checked) return checked;
      setOwn<TableRow[string]>(row, column.name, checked.value as string);
    }
    if (Object.keys(row).length > 0) rows.push(row);
  }
  if (rows.length < (least ?? 1))
    return { code: least === undefined ? 'missing' : 'tooFew', limit: least ?? 1 };
  return rows.length > most ? { code: 'tooMany', limit: most } : { value: rows };
}

function checkAnswer(asked: Asked, value: AnswerValue): Checked {
  switch (asked.kind) {
    case 'text':
    case 'place':
      return checkText(value, asked.most ?? TEXT_LIMIT, asked);
    case 'longText':
      return checkText(value, asked.most ?? LONG_TEXT_LIMIT, asked);
    case 'number':
      return checkNumber(value, asked);
    case 'money':
      return checkMoney(value, asked);
    case 'choice':
      return asked.choices?.some((choice) => choice.value === value) ? { value } : { code: 'notAChoice' };
    case 'choices':
      return checkChoices(value, asked);
    case 'yesNo':
      return typeof value === 'boolean' ? { value } : { code: 'malformed' };
    case 'date':
      return isDate(value) ? { value } : { code: 'notADate' };
    case 'dateRange':
      return checkDateRange(value);
    case 'time':
      return typeof value === 'string' && /^([01]\d|2[0-3]):[0-5]\d$/.test(value)
        ? { value }
        : { code: 'notATime' };
    case 'person':
    case 'asset':
      return checkNamed(value);
    case 'links':
      return checkLinks(value);
    case 'table':
      return checkTable(value, asked);
    case 'files':
      return Array.isArray(value) && value.every((id) => typeof id === 'string')
        ? { value: value }
        : { code: 'malformed' };
    case 'heading':
      return { code: 'malformed' };
  }
}

/** The questions to show, given what has been answered so far. */
export function getShownFields(form: FormDefinition, answers: Answers): FormField[] {
  return form.fields.filter(({ shownWhen }) => !shownWhen || holds(shownWhen, answers));
}

/** Whether a question must be answered, given the other answers. */
export function isNeeded({ needed, neededWhen }: FormField, answers: Answers): boolean {
  return needed || (neededWhen !== undefined && holds(neededWhen, answers));
}

/** The same questions, page by page: a heading may begin one. A page on which nothing is shown is none. */
export function listPages(form: FormDefinition, answers: Answers): FormField[][] {
  const pages: FormField[][] = [[]];
  for (const field of getShownFields(form, answers)) {
    if (field.startsPage && pages.at(-1)!.length > 0) pages.push([]);
    pages.at(-1)!.push(field);
  }
  return pages;
}

/** A form without what is sent as files: those are kept beside the answers, not among them. */
export function withoutFiles({ fields }: FormDefinition): FormDefinition {
  return { fields: fields.filter(({ kind }) => kind !== 'files') };
}

/** The answers with what is sent as files, for the questions that ask for some. */
export function withFiles({ fields }: FormDefinition, answers: Answers, fileIds: string[]): Answers {
  const asked = fields.filter(({ kind }) => kind === 'files');
  return { ...answers, ...Object.fromEntries(asked.map(({ name }) => [name, fileIds])) };
}

/**
 * Judges what was filled in, in the browser and on the server alike. Answers to questions that are not shown are
 * left out of the result.
 */
export function checkAnswers(
  form: FormDefinition,
  answers: Answers,
): { answers: Answers; problems: AnswerProblem[] } {
  const kept: Answers = {};
  const problems: AnswerProblem[] = [];
  for (const field of getShownFields(form, answers)) {
    if (field.kind === 'heading') continue;
    const value = getOwn(answers, field.name);
    if (isBlank(value)) {
      if (isNeeded(field, answers)) problems.push({ field: field.name, code: 'missing' });
      continue;
    }
    const checked = checkAnswer(field, value!);
    if (!('code' in checked)) setOwn(kept, field.name, checked.value);
    else if (checked.code !== 'missing' || isNeeded(field, answers))
      problems.push({ field: field.name, ...checked });
  }
  return { answers: kept, problems };
}

/**
 * The needed questions without an answer, by name: of what was not asked where it came from, by chat or by mail.
 * @example listMissing(form, { what: 'Dead' }) // ['since']
 */
export function listMissing(form: FormDefinition, answers: Answers): string[] {
  return checkAnswers(form, answers)
    .problems.filter(({ code }) => code === 'missing')
    .map(({ field }) => field);
}
