import type { AnswerLink, AnswerValue, Column, FormField, Language, Named, TableRow } from './types';
import { LOCALES } from './types';

const dayFormat = (locale: string): Intl.DateTimeFormat =>
  new Intl.DateTimeFormat(locale, {
    ...{ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' },
    timeZone: 'UTC',
  });
// Making one takes far longer than using it.
const DAYS: Record<Language, Intl.DateTimeFormat> = {
  en: dayFormat(LOCALES.en),
  pt: dayFormat(LOCALES.pt),
};
const YES_NO: Record<Language, [string, string]> = { en: ['yes', 'no'], pt: ['sim', 'não'] };

/** A calendar day in words; it is that day in every zone. What is no day stays as it is. */
export function sayDay(day: string, language: Language): string {
  const at = new Date(`${day}T00:00:00Z`);
  return Number.isNaN(at.getTime()) ? day : DAYS[language].format(at);
}

function sayOne(
  { kind, choices }: Pick<FormField, 'kind' | 'choices'> | Column,
  value: string | number | boolean | null,
  language: Language,
): string {
  if (typeof value === 'boolean') return YES_NO[language][value ? 0 : 1];
  if (kind === 'date' && typeof value === 'string') return sayDay(value, language);
  if (kind === 'money' && typeof value === 'number')
    return new Intl.NumberFormat(LOCALES[language], { style: 'currency', currency: 'EUR' }).format(
      value / 100,
    );
  return choices?.find((choice) => choice.value === value)?.label[language] ?? String(value ?? '');
}

/**
 * What was answered to a question, for doors that carry text alone; null: nothing. The rows of a table come one after the
 * other, parted by semicolons.
 */
export function sayAnswer(
  field: FormField,
  value: AnswerValue | undefined,
  language: Language,
): string | null {
  if (value === undefined || value === null) return null;
  if (typeof value === 'number' && field.unit)
    return `${sayOne(field, value, language)} ${field.unit[language]}`;
  if (typeof value !== 'object') return sayOne(field, value, language);
  if (!Array.isArray(value))
    return 'from' in value
      ? `${sayDay(value.from, language)} – ${sayDay(value.to, language)}`
      : (value satisfies Named).name;
  const said = (value as (string | AnswerLink | TableRow)[]).map((each) => {
    if (typeof each === 'string') return sayOne(field, each, language);
    if (field.kind === 'links') return [each.name, each.url].filter(Boolean).join(' ');
    return (field.columns ?? [])
      .map((column) => sayOne(column, (each as TableRow)[column.name] ?? null, language))
      .filter(Boolean)
      .join(', ');
  });
  return said.length === 0 ? null : said.join(field.kind === 'table' ? '; ' : ', ');
}
