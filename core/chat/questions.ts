import { getOwn, hasOwn } from '../records';
import {
  getShownFields,
  isNeeded,
  sayAnswer,
  type Answers,
  type AnswerValue,
  type DateRange,
  type FieldKind,
  type FormDefinition,
  type FormField,
  type Language,
  type Named,
} from '../forms';
import type { ChatField } from './types';

/** How each kind of question is asked in chat; what is not here cannot be. */
const ASKED: Partial<Record<FieldKind, ChatField['kind']>> = {
  text: 'line',
  longText: 'text',
  number: 'line',
  money: 'line',
  choice: 'choice',
  choices: 'choices',
  yesNo: 'choice',
  date: 'date',
  dateRange: 'date',
  time: 'time',
  place: 'line',
  asset: 'choice',
};

const IN: Record<Language, string> = { en: 'in', pt: 'em' };
const ENDS: Record<Language, [string, string]> = { en: ['from', 'to'], pt: ['de', 'até'] };

/** What can be chosen for a question about a thing, by the question's name. */
export type Listed = Record<string, Named[]>;

/** The questions for which a form cannot be filled in in chat: they may be needed and cannot be asked there. */
export function listNotInChat({ fields }: FormDefinition): FormField[] {
  return fields.filter(
    ({ kind, needed, neededWhen }) =>
      kind !== 'heading' && !ASKED[kind] && (needed || neededWhen !== undefined),
  );
}

function toValue({ kind }: FormField, answer: AnswerValue | undefined): string {
  if (answer === undefined || answer === null) return '';
  if (kind === 'money' && typeof answer === 'number') return (answer / 100).toFixed(2);
  if (typeof answer === 'boolean') return answer ? 'yes' : 'no';
  if (typeof answer !== 'object') return String(answer);
  if (Array.isArray(answer)) return answer.filter((each) => typeof each === 'string').join('\n');
  return 'id' in answer ? answer.id : '';
}

/** The questions that are shown now, as fields of a form in chat, with what is answered already. */
export function toChatFields(
  form: FormDefinition,
  answers: Answers,
  language: Language,
  listed: Listed = {},
): ChatField[] {
  const none = { value: '', label: '–' };
  return getShownFields(form, answers).flatMap((field): ChatField[] => {
    const kind = ASKED[field.kind];
    if (!kind) return [];
    const label = field.label[language];
    const note = [
      field.help?.[language],
      field.kind === 'money' ? `${IN[language]} EUR` : undefined,
      field.unit && `${IN[language]} ${field.unit[language]}`,
    ]
      .filter(Boolean)
      .join(' · ');
    const shared = { kind, ...(note && { note }), needed: isNeeded(field, answers) };
    if (field.kind === 'dateRange') {
      const range = getOwn(answers, field.name) as DateRange | undefined;
      return (['from', 'to'] as const).map((end, i) => ({
        ...{ ...shared, name: `${field.name}.${end}`, label: `${label}: ${ENDS[language][i]}` },
        value: range?.[end] ?? '',
      }));
    }
    const choices =
      field.kind === 'yesNo'
        ? ['yes', 'no'].map((value) => ({ value, label: sayAnswer(field, value === 'yes', language)! }))
        : field.kind === 'asset'
          ? (getOwn(listed, field.name) ?? []).map(({ id, name }) => ({ value: id, label: name }))
          : field.choices?.map(({ value, label: said }) => ({ value, label: said[language] }));
    return [
      {
        ...{ ...shared, name: field.name, label, value: toValue(field, getOwn(answers, field.name)) },
        ...(choices && { choices: kind === 'choice' && !shared.needed ? [none, ...choices] : choices }),
      },
    ];
  });
}

/** A number as people write it, with a comma or a point; what is none stays as it is, to be refused by its name. */
function readNumber(text: string, factor: number): number | string {
  const plain = text.replace(/[\s\u00a0]/gu, '').replace(',', '.');
  return /^-?\d+(\.\d+)?$/.test(plain) ? Number((Number(plain) * factor).toFixed(6)) : text;
}

function readValue(field: FormField, values: Record<string, string>, listed: Listed): AnswerValue {
  const said = (getOwn(values, field.name) ?? '').trim();
  if (field.kind === 'dateRange') {
    const [from = '', to = ''] = [values[`${field.name}.from`], values[`${field.name}.to`]];
    return from === '' && to === '' ? null : { from, to };
  }
  if (said === '') return null;
  switch (field.kind) {
    case 'number':
      return readNumber(said, 1);
    case 'money':
      return readNumber(said, 100);
    case 'yesNo':
      return said === 'yes' ? true : said === 'no' ? false : said;
    case 'choices':
      return said.split('\n');
    case 'asset':
      return (getOwn(listed, field.name) ?? []).find(({ id }) => id === said) ?? said;
    default:
      return said;
  }
}

/** What was filled in in chat as answers to the form, judged by nobody yet. */
export function readValues(
  { fields }: FormDefinition,
  values: Record<string, string>,
  listed: Listed = {},
): Answers {
  const asked = fields.filter(
    ({ kind, name }) =>
      ASKED[kind] && (hasOwn(values, name) || (kind === 'dateRange' && `${name}.from` in values)),
  );
  return Object.fromEntries(asked.map((field) => [field.name, readValue(field, values, listed)]));
}
