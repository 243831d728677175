import { isDate } from '../forms';
import { cellOf, guessByNames, type MappingOf } from '../imports';
import { findBadText, foldText } from '../text';
import type { ThingState } from './states';
import { matchThing, THING_TEXT_LIMITS, toMark, type KnownThings } from './thing';

/** What a column of a table can become of a thing. */
export const THING_FIELDS = [
  ...(['kind', 'name', 'tag', 'serial', 'model', 'holder', 'owner', 'site', 'place', 'vessel'] as const),
  ...(['team', 'cost', 'boughtOn', 'warrantyUntil', 'contract', 'state', 'needs'] as const),
] as const;
/** Something of a thing that a column of a table can say. */
export type ThingField = (typeof THING_FIELDS)[number];
/** What every row has to say. */
export const NEEDED_OF_THING: readonly ThingField[] = ['kind', 'name'];

/** How columns of inventories are often called, in both languages; common practice, from memory. */
const OFTEN: Record<ThingField, string[]> = {
  kind: ['kind', 'type', 'category', 'class', 'tipo', 'categoria', 'classe'],
  name: ['name', 'device', 'hostname', 'computer name', 'nome', 'equipamento', 'designacao'],
  tag: ['tag', 'inventory number', 'inventory no', 'label', 'etiqueta', 'numero de inventario'],
  serial: ['serial number', 'serial', 'serial no', 's/n', 'numero de serie', 'n de serie'],
  model: ['model', 'make and model', 'modelo'],
  holder: ['holder', 'user', 'used by', 'assigned to', 'utilizador', 'quem a tem', 'atribuido a'],
  owner: ['owner', 'responsible', 'responsavel', 'dono'],
  site: ['site', 'location', 'office', 'local', 'localizacao', 'escritorio'],
  place: ['place', 'room', 'sala', 'lugar'],
  vessel: ['vessel', 'ship', 'navio'],
  team: ['team', 'looked after by', 'equipa'],
  cost: ['cost', 'price', 'value', 'custo', 'preco', 'valor'],
  boughtOn: ['bought on', 'purchase date', 'purchased', 'data de compra', 'comprado em'],
  warrantyUntil: ['warranty until', 'warranty end', 'warranty', 'garantia ate', 'garantia'],
  contract: ['contract', 'contrato'],
  state: ['state', 'status', 'estado', 'situacao'],
  needs: ['needs', 'depends on', 'precisa de', 'depende de'],
};

/** A first guess of what the columns of an inventory are. */
export const guessThingMapping = (headings: readonly string[]): MappingOf<ThingField> =>
  guessByNames(OFTEN, headings);

/** What states are often called; common practice, from memory. */
const STATES: Record<string, ThingState> = {
  ...{ ordered: 'ordered', encomendada: 'ordered', encomendado: 'ordered' },
  ...{ 'in store': 'inStore', stock: 'inStore', 'em armazem': 'inStore', armazem: 'inStore' },
  ...{ 'in use': 'inUse', active: 'inUse', deployed: 'inUse', 'em uso': 'inUse', ativo: 'inUse' },
  ...{ 'in repair': 'inRepair', repair: 'inRepair', 'em reparacao': 'inRepair' },
  ...{ retired: 'retired', disposed: 'retired', abatida: 'retired', abatido: 'retired' },
  ...{ lost: 'lost', stolen: 'lost', perdida: 'lost', perdido: 'lost' },
};

/** What is wrong with a row, and in which field. */
export type ThingRowProblem = {
  field: ThingField;
  code:
    | 'missing'
    | 'tooLong'
    | 'badCharacter'
    | 'notADate'
    | 'notAnAmount'
    | 'repeated'
    | 'severalThings'
    | 'unknownKind'
    | 'unknownSite'
    | 'unknownTeam'
    | 'unknownPerson'
    | 'severalPeople'
    | 'wrongValue';
  value: string;
};

/** A row as what it says of a thing; what it does not say is absent. Days are ISO 8601, cost is cents. */
export type ThingSaid = {
  /** The thing that is here already; null: it is new. */
  id: string | null;
  kindId: string;
  name: string;
  holderId?: string;
  ownerId?: string;
  siteId?: string;
  teamId?: string;
  cost?: number;
  boughtOn?: string;
  warrantyUntil?: string;
  state?: ThingState;
  /** The names, tags or numbers of what it needs, each of them. */
  needs?: string[];
} & Partial<Record<'tag' | 'serial' | 'model' | 'place' | 'vessel' | 'contract', string>>;

/** What some words mean in this organisation, and in the table itself. */
export type ThingLookups = KnownThings & {
  kind(words: string): string | null;
  site(words: string): string | null;
  team(words: string): string | null;
  person(words: string): { id: string } | 'nobody' | 'several';
  /** How often the table itself has this tag or serial number. */
  timesOf(field: 'tag' | 'serial', mark: string): number;
};

/** A day as inventories write it: 2026-03-01, 1/3/2026, 01.03.2026 (day first); null: none. */
export function readDay(words: string): string | null {
  const [, day, month, year] = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})$/.exec(words) ?? [];
  const iso = year ? `${year}-${month!.padStart(2, '0')}-${day!.padStart(2, '0')}` : words.slice(0, 10);
  return isDate(iso) ? iso : null;
}

/** An amount of money in cents, however thousands and cents are parted. @example readAmount('1.249,00 €') // 124900 */
export function readAmount(words: string): number | null {
  const bare = words.replace(/[€$£\s'’]|EUR/gi, '');
  const [, whole, part = ''] = /^(\d[\d.,]*?)(?:[.,](\d{1,2}))?$/.exec(bare) ?? [];
  if (whole === undefined || !/^\d{1,3}([.,]\d{3})*$|^\d+$/.test(whole)) return null;
  const cents = Number(whole.replace(/[.,]/g, '')) * 100 + Number(part.padEnd(2, '0'));
  return Number.isSafeInteger(cents) ? cents : null;
}

const TEXTS = ['name', 'tag', 'serial', 'model', 'place', 'vessel', 'contract'] as const;

type Reader = {
  values: Record<ThingField, string>;
  wrong(field: ThingField, code: ThingRowProblem['code']): null;
};

/** Who and what is named in a row. */
function readNamed({ values, wrong }: Reader, lookups: ThingLookups) {
  const meant = <T>(
    field: ThingField,
    code: ThingRowProblem['code'],
    read: (words: string) => T | null,
  ): T | undefined =>
    values[field] === '' ? undefined : (read(values[field]) ?? wrong(field, code) ?? undefined);
  const person = (field: 'holder' | 'owner'): string | undefined => {
    if (values[field] === '') return undefined;
    const found = lookups.person(values[field]);
    if (typeof found === 'object') return found.id;
    wrong(field, found === 'nobody' ? 'unknownPerson' : 'severalPeople');
    return undefined;
  };
  const needs = values.needs
    .split(/[;|]/)
    .map((each) => each.trim())
    .filter((each) => each !== '');
  return {
    kindId: meant('kind', 'unknownKind', lookups.kind),
    ...{ holderId: person('holder'), ownerId: person('owner') },
    siteId: meant('site', 'unknownSite', lookups.site),
    teamId: meant('team', 'unknownTeam', lookups.team),
    cost: meant('cost', 'notAnAmount', readAmount),
    boughtOn: meant('boughtOn', 'notADate', readDay),
    warrantyUntil: meant('warrantyUntil', 'notADate', readDay),
    state: meant('state', 'wrongValue', (words) => STATES[foldText(words)] ?? null),
    ...(needs.length > 0 && { needs }),
  };
}

/**
 * One row as what it says of a thing, new or here already, or everything that is wrong with it. A tag or serial number
 * that stands in the table twice names none: each such row is told.
 */
export function readThingRow(
  cells: readonly string[],
  mapping: MappingOf<ThingField>,
  lookups: ThingLookups,
): { thing: ThingSaid; problems: [] } | { thing: null; problems: ThingRowProblem[] } {
  const problems: ThingRowProblem[] = [];
  const values = Object.fromEntries(
    THING_FIELDS.map((field) => [field, cellOf(cells, mapping, field)]),
  ) as Record<ThingField, string>;
  const wrong = (field: ThingField, code: ThingRowProblem['code']): null => {
    problems.push({ field, code, value: values[field].slice(0, 80) });
    return null;
  };
  for (const field of NEEDED_OF_THING) if (values[field] === '') wrong(field, 'missing');
  for (const field of TEXTS) {
    if (values[field].length > THING_TEXT_LIMITS[field]) wrong(field, 'tooLong');
    if (findBadText(values[field])) wrong(field, 'badCharacter');
  }
  for (const field of ['tag', 'serial'] as const)
    if (lookups.timesOf(field, toMark(values[field])) > 1) wrong(field, 'repeated');
  const { kindId = '', ...named } = readNamed({ values, wrong }, lookups);
  const { serial, tag, name } = values;
  const match = matchThing({ serial, tag, name, kindId }, lookups);
  if (match && 'severalBy' in match) wrong(match.severalBy, 'severalThings');
  if (problems.length > 0) return { thing: null, problems };
  const texts = TEXTS.filter((field) => values[field] !== '').map((field) => [field, values[field]]);
  const said = Object.entries(named).filter(([, value]) => value !== undefined);
  const id = match && 'id' in match ? match.id : null;
  return {
    thing: { ...(Object.fromEntries([...texts, ...said]) as Omit<ThingSaid, 'id' | 'kindId'>), id, kindId },
    problems: [],
  };
}
