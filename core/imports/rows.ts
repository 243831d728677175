import { findBadText, foldText } from '../text';
import { cellOf, guessByNames, type MappingOf } from './mapping';
import type { Impact, Urgency } from '../tickets';

/** What a column of a table can become of a ticket. */
export const IMPORT_FIELDS = ['title', 'requester', 'service', 'words', 'impact', 'urgency'] as const;
/** Something of a ticket that a column of a table can say. */
export type ImportField = (typeof IMPORT_FIELDS)[number];
/** What every row has to say. */
export const NEEDED_FIELDS: readonly ImportField[] = ['title', 'requester', 'service'];

/** Where each field comes from: a column by its place, or the same words for every row. */
export type Mapping = MappingOf<ImportField>;

/** What is wrong with a row, and in which field. */
export type RowProblem = {
  field: ImportField;
  code:
    | 'missing'
    | 'tooLong'
    | 'badCharacter'
    | 'unknownPerson'
    | 'severalPeople'
    | 'unknownService'
    | 'wrongValue';
  value: string;
};

/** A row as the ticket that it becomes. */
export type ImportedTicket = {
  title: string;
  requesterId: string;
  serviceId: string;
  words: string;
  impact: Impact | null;
  urgency: Urgency | null;
};

/** Who and what is meant by some words. */
export type Lookups = {
  person(words: string): { id: string } | 'nobody' | 'several';
  service(words: string): string | null;
  impact(words: string): Impact | null;
  urgency(words: string): Urgency | null;
};

/** How the columns of other tables are often called, in both languages; common practice, from memory. */
const OFTEN: Record<ImportField, string[]> = {
  title: ['title', 'subject', 'summary', 'short description', 'titulo', 'assunto', 'resumo'],
  requester: [
    'requester',
    'requested by',
    'requested for',
    'reported by',
    'caller',
    'user',
    'employee',
    'e-mail',
    'email',
    'mail',
    'name',
    'requerente',
    'pedido por',
    'pessoa',
    'colaborador',
    'nome',
  ],
  service: ['service', 'catalogue item', 'type', 'category', 'servico', 'tipo', 'categoria'],
  words: ['description', 'details', 'text', 'notes', 'what', 'descricao', 'detalhes', 'texto', 'notas'],
  impact: ['impact', 'impacto'],
  urgency: ['urgency', 'urgencia'],
};

/** A first guess of what the columns are, by their headings; each column is used once. */
export const guessMapping = (headings: readonly string[]): Mapping => guessByNames(OFTEN, headings);

/** Words as they stand in a table for one of several choices, by code or by one of its names. */
export function chooseByName<T extends string>(
  choices: readonly T[],
  namesOf: (choice: T) => string[],
): (words: string) => T | null {
  const byName = new Map(
    choices.flatMap((choice) =>
      [choice, ...namesOf(choice)].map((name) => [foldText(name), choice] as const),
    ),
  );
  return (words) => byName.get(foldText(words).trim()) ?? null;
}

const LIMITS = { title: 200, words: 20_000 } as const;

/** One row as a ticket, or everything that is wrong with it. */
export function readRow(
  cells: readonly string[],
  mapping: Mapping,
  lookups: Lookups,
): { ticket: ImportedTicket; problems: [] } | { ticket: null; problems: RowProblem[] } {
  const problems: RowProblem[] = [];
  const wrong = (field: ImportField, code: RowProblem['code'], value: string): void =>
    void problems.push({ field, code, value: value.slice(0, 80) });
  const values = Object.fromEntries(
    IMPORT_FIELDS.map((field) => [field, cellOf(cells, mapping, field)]),
  ) as Record<ImportField, string>;
  for (const field of NEEDED_FIELDS) if (values[field] === '') wrong(field, 'missing', '');
  for (const field of ['title', 'words'] as const) {
    if (values[field].length > LIMITS[field]) wrong(field, 'tooLong', values[field]);
    if (findBadText(values[field])) wrong(field, 'badCharacter', values[field]);
  }
  const person = values.requester === '' ? null : lookups.person(values.requester);
  if (person === 'nobody') wrong('requester', 'unknownPerson', values.requester);
  if (person === 'several') wrong('requester', 'severalPeople', values.requester);
  const serviceId = values.service === '' ? '' : lookups.service(values.service);
  if (serviceId === null) wrong('service', 'unknownService', values.service);
  const impact = values.impact === '' ? null : lookups.impact(values.impact);
  if (values.impact !== '' && impact === null) wrong('impact', 'wrongValue', values.impact);
  const urgency = values.urgency === '' ? null : lookups.urgency(values.urgency);
  if (values.urgency !== '' && urgency === null) wrong('urgency', 'wrongValue', values.urgency);
  if (problems.length > 0 || person === null || typeof person === 'string' || serviceId === null)
    return { ticket: null, problems };
  const { title, words } = values;
  return {
    ticket: { title, words, requesterId: person.id, serviceId, impact, urgency },
    problems: [],
  };
}
