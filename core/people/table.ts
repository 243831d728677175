import type { Language } from '../forms';
import { toAddress } from '../identity';
import { cellOf, guessByNames, type MappingOf } from '../imports';
import { findBadText, foldText } from '../text';

/** What a column of a table can become of a person. */
export const PERSON_FIELDS = [
  ...(['name', 'email', 'site', 'department', 'job', 'phone'] as const),
  ...(['manager', 'team', 'language', 'goesFirst'] as const),
] as const;
/** Something of a person that a column of a table can say. */
export type PersonField = (typeof PERSON_FIELDS)[number];
/** What every row has to say. */
export const NEEDED_OF_PERSON: readonly PersonField[] = ['name', 'email', 'site'];

/** How columns of tables of people are often called, in both languages; common practice, from memory. */
const OFTEN: Record<PersonField, string[]> = {
  name: ['name', 'full name', 'display name', 'employee', 'nome', 'nome completo', 'colaborador'],
  email: ['e-mail', 'email', 'mail', 'email address', 'mail address', 'correio', 'endereco de correio'],
  site: ['site', 'location', 'office', 'city', 'place', 'local', 'localizacao', 'escritorio', 'cidade'],
  department: ['department', 'unit', 'division', 'departamento', 'unidade'],
  job: ['title', 'job title', 'job', 'role', 'position', 'funcao', 'cargo'],
  phone: ['phone', 'telephone', 'mobile', 'telefone', 'telemovel'],
  manager: ['manager', 'reports to', 'supervisor', 'boss', 'chefia', 'chefe', 'responsavel'],
  team: ['team', 'group', 'equipa', 'grupo'],
  language: ['language', 'lingua', 'idioma'],
  goesFirst: ['goes first', 'vip', 'priority', 'primeiro', 'vai primeiro'],
};

/** A first guess of what the columns of a table of people are. */
export const guessPersonMapping = (headings: readonly string[]): MappingOf<PersonField> =>
  guessByNames(OFTEN, headings);

/** What is wrong with a row, and in which field. */
export type PersonRowProblem = {
  field: PersonField;
  code:
    | 'missing'
    | 'tooLong'
    | 'badCharacter'
    | 'malformed'
    | 'repeated'
    | 'hasLeft'
    | 'unknownSite'
    | 'unknownTeam'
    | 'unknownPerson'
    | 'severalPeople'
    | 'wrongValue';
  value: string;
};

/** A row as what it says of a person; what it does not say is absent. */
export type PersonRow = {
  name: string;
  email: string;
  siteId: string;
  department?: string;
  title?: string;
  phone?: string;
  language?: Language;
  goesFirst?: boolean;
  teamId?: string;
  /** The words for the manager, who may stand further down in the same table. */
  manager?: string;
};

/** What some words mean in this organisation, and in the table itself. */
export type PersonLookups = {
  site(words: string): string | null;
  team(words: string): string | null;
  /** Who is meant, of those who are here and those in the table. */
  manager(words: string): 'known' | 'nobody' | 'several';
  /** Whether someone with this address has left. */
  hasLeft(email: string): boolean;
  /** How often the table itself has this address. */
  timesOf(email: string): number;
};

const LIMITS = { name: 100, department: 100, job: 100, phone: 40 } as const;
const LANGUAGE_NAMES: Record<string, Language> = {
  ...{ en: 'en', english: 'en', ingles: 'en' },
  ...{ pt: 'pt', portuguese: 'pt', portugues: 'pt' },
};
const YES_NO: Record<string, boolean> = {
  ...{ yes: true, sim: true, true: true, x: true, 1: true },
  ...{ no: false, nao: false, false: false, 0: false },
};
const choiceOf = <T>(choices: Record<string, T>, words: string): T | null => {
  const folded = foldText(words).trim();
  return Object.hasOwn(choices, folded) ? choices[folded]! : null;
};

/**
 * One row as what it says of a person, or everything that is wrong with it.
 * @example readPersonRow(['Ana Reis', 'ana@x.example', 'Port Alder'], mapping, lookups) // { person: { … }, problems: [] }
 */
export function readPersonRow(
  cells: readonly string[],
  mapping: MappingOf<PersonField>,
  lookups: PersonLookups,
): { person: PersonRow; problems: [] } | { person: null; problems: PersonRowProblem[] } {
  const problems: PersonRowProblem[] = [];
  const values = Object.fromEntries(
    PERSON_FIELDS.map((field) => [field, cellOf(cells, mapping, field)]),
  ) as Record<PersonField, string>;
  const wrong = (field: PersonField, code: PersonRowProblem['code']): null => {
    problems.push({ field, code, value: values[field].slice(0, 80) });
    return null;
  };
  /** What is said of a field, as it is meant; null where nothing is, or it is wrong. */
  const meant = <T>(
    field: PersonField,
    code: PersonRowProblem['code'],
    read: (words: string) => T | null,
  ): T | null => {
    if (values[field] === '') return null;
    const value = read(values[field]);
    return value ?? wrong(field, code);
  };
  for (const field of NEEDED_OF_PERSON) if (values[field] === '') wrong(field, 'missing');
  for (const field of ['name', 'department', 'job', 'phone'] as const) {
    if (values[field].length > LIMITS[field]) wrong(field, 'tooLong');
    if (findBadText(values[field])) wrong(field, 'badCharacter');
  }
  const email = meant('email', 'malformed', toAddress);
  if (email !== null && lookups.timesOf(email) > 1) wrong('email', 'repeated');
  if (email !== null && lookups.hasLeft(email)) wrong('email', 'hasLeft');
  const siteId = meant('site', 'unknownSite', lookups.site);
  const teamId = meant('team', 'unknownTeam', lookups.team);
  const language = meant('language', 'wrongValue', (words) => choiceOf(LANGUAGE_NAMES, words));
  const goesFirst = meant('goesFirst', 'wrongValue', (words) => choiceOf(YES_NO, words));
  if (values.manager !== '') {
    const found = lookups.manager(values.manager);
    if (found !== 'known') wrong('manager', found === 'several' ? 'severalPeople' : 'unknownPerson');
  }
  if (problems.length > 0 || email === null || siteId === null) return { person: null, problems };
  const { name, department, job, phone, manager } = values;
  return {
    person: {
      ...{ name, email, siteId },
      ...(department !== '' && { department }),
      ...(job !== '' && { title: job }),
      ...(phone !== '' && { phone }),
      ...(manager !== '' && { manager }),
      ...(teamId !== null && { teamId }),
      ...(language !== null && { language }),
      ...(goesFirst !== null && { goesFirst }),
    },
    problems: [],
  };
}
