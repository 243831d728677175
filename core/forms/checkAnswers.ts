import { holds } from '../conditions';
import { findBadText } from '../text';
import type { AnswerLink, Answers, AnswerValue, FormDefinition, FormField } from './types';

export type AnswerProblemCode =
  | 'missing'
  | 'badCharacter'
  | 'tooLong'
  | 'notANumber'
  | 'tooSmall'
  | 'tooLarge'
  | 'notAChoice'
  | 'notADate'
  | 'notALink'
  | 'malformed';
export type AnswerProblem = { field: string; code: AnswerProblemCode; limit?: number };

export const TEXT_LIMIT = 200;
export const LONG_TEXT_LIMIT = 20_000;
const LINKS_LIMIT = 20;

type Checked = { value: AnswerValue } | { code: AnswerProblemCode; limit?: number };

function isBlank(value: AnswerValue | undefined): boolean {
  return (
    value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0)
  );
}

function checkText(value: AnswerValue, limit: number): Checked {
  if (typeof value !== 'string') return { code: 'malformed' };
  if (findBadText(value)) return { code: 'badCharacter' };
  return value.length > limit ? { code: 'tooLong', limit } : { value };
}

function checkNumber(value: AnswerValue, { least, most }: FormField): Checked {
  const number = typeof value === 'string' ? Number(value) : value;
  if (typeof number !== 'number' || !Number.isFinite(number)) return { code: 'notANumber' };
  if (least !== undefined && number < least) return { code: 'tooSmall', limit: least };
  if (most !== undefined && number > most) return { code: 'tooLarge', limit: most };
  return { value: number };
}

function checkDate(value: AnswerValue): Checked {
  const isDate = typeof value === 'string' && /^\d{4}-\d\d-\d\d$/.test(value);
  const date = isDate ? new Date(`${value}T00:00:00Z`) : null;
  const exists = date && !Number.isNaN(date.getTime()) && date.toISOString().startsWith(value as string);
  return exists ? { value } : { code: 'notADate' };
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

function checkAnswer(field: FormField, value: AnswerValue): Checked {
  switch (field.kind) {
    case 'text':
    case 'place':
      return checkText(value, field.most ?? TEXT_LIMIT);
    case 'longText':
      return checkText(value, field.most ?? LONG_TEXT_LIMIT);
    case 'number':
      return checkNumber(value, field);
    case 'choice':
      return field.choices?.some((choice) => choice.value === value) ? { value } : { code: 'notAChoice' };
    case 'yesNo':
      return typeof value === 'boolean' ? { value } : { code: 'malformed' };
    case 'date':
      return checkDate(value);
    case 'links':
      return checkLinks(value);
    case 'files':
      return Array.isArray(value) && value.every((id) => typeof id === 'string')
        ? { value }
        : { code: 'malformed' };
  }
}

/** The questions to show, given what has been answered so far. */
export function getShownFields(form: FormDefinition, answers: Answers): FormField[] {
  return form.fields.filter(({ shownWhen }) => !shownWhen || holds(shownWhen, answers));
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
    const value = answers[field.name];
    if (isBlank(value)) {
      if (field.needed) problems.push({ field: field.name, code: 'missing' });
      continue;
    }
    const checked = checkAnswer(field, value!);
    if ('code' in checked) problems.push({ field: field.name, ...checked });
    else kept[field.name] = checked.value;
  }
  return { answers: kept, problems };
}
