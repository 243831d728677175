import type { ThingBody } from '../../contract/estate';
import type { ImportProblem, Reading } from '../../contract/imports';
import { cellOf, type MappingOf } from '../../core/imports';
import {
  actOn,
  readThingRow,
  toMark,
  type MatchedBy,
  type ThingField,
  type ThingLookups,
  type ThingSaid,
} from '../../core/estate';
import { actWithin } from '../estate/acts';
import { createWithin, updateWithin } from '../estate/keep';
import type { ThingRow } from '../estate/model';
import { setNeedsWithin } from '../estate/needs';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { WorkOfViewer } from '../unitOfWork';
import type { Opened, Rows } from './kinds';
import { byName, readLookups } from './lookups';
import type { ImportRow } from './model';
import type { TableRow } from './table';

type Mapping = MappingOf<ThingField>;
type Ids = Map<string, string[]>;
const put = (ids: Ids, mark: string, id: string): void => void ids.set(mark, [...(ids.get(mark) ?? []), id]);

/** The things that are here, by their marks. */
async function readKnown({ db }: Listo): Promise<Record<MatchedBy, Ids>> {
  const known = { serial: new Map(), tag: new Map(), name: new Map() } as Record<MatchedBy, Ids>;
  const rows = await db.select<Pick<ThingRow, 'id' | 'kindId' | 'name' | 'tagMark' | 'serialMark'>>(
    'SELECT id, kindId, name, tagMark, serialMark FROM things',
  );
  for (const { id, kindId, name, tagMark, serialMark } of rows) {
    if (serialMark !== null) put(known.serial, serialMark, id);
    if (tagMark !== null) put(known.tag, tagMark, id);
    put(known.name, `${kindId} ${toMark(name)}`, id);
  }
  return known;
}

/** What words in a table of things mean: kinds, sites and teams by name or id, people as elsewhere, things by their marks. */
async function readThingLookups(
  listo: Listo,
  rows: Rows,
  { reading, mapping }: { reading: Reading; mapping: Mapping },
): Promise<ThingLookups> {
  const { tables } = listo.db;
  const known = await readKnown(listo);
  const { person } = await readLookups(listo, reading);
  const own = new Map<string, number>();
  for await (const { cells } of rows())
    for (const field of ['tag', 'serial'] as const) {
      const key = `${field} ${toMark(cellOf(cells, mapping, field))}`;
      own.set(key, (own.get(key) ?? 0) + 1);
    }
  return {
    kind: byName((await tables.thingKinds.find({})).map(({ id, name }) => [id, [name.en, name.pt]])),
    site: byName((await tables.sites.find({})).map(({ id, name }) => [id, [name]])),
    team: byName((await tables.teams.find({})).map(({ id, name }) => [id, [name.en, name.pt]])),
    person,
    timesOf: (field, mark) => (mark === '' ? 0 : (own.get(`${field} ${mark}`) ?? 0)),
    of: (by, mark, kindId) => known[by].get(by === 'name' ? `${kindId} ${mark}` : mark) ?? [],
  };
}

const BARE: ThingBody = {
  ...{
    name: '',
    tag: '',
    serial: '',
    model: '',
    kindId: '',
    ownerId: null,
    siteId: null,
    place: '',
    vessel: '',
  },
  ...{ teamId: null, cost: null, boughtOn: null, warrantyUntil: null, contract: '', isWatched: false },
  ...{ dependable: null, fields: {} },
};
const bodyOf = (row: ThingRow): ThingBody =>
  Object.fromEntries(Object.keys(BARE).map((field) => [field, row[field as keyof ThingRow]])) as ThingBody;

/** Over what is kept, what the row says; the table is not asked for what the kind asks for. */
const over = (
  kept: ThingBody,
  { id: _, holderId: __, state: ___, needs: ____, ...said }: ThingSaid,
): ThingBody => ({
  ...kept,
  ...said,
});

/** Whoever has it by the table is given it, where that can be. */
async function handOver(work: WorkOfViewer, id: string, holderId: string): Promise<void> {
  const thing = await work.listo.db.tables.things.findOne({ id }, work.tx, true);
  if (!thing || thing.holderId === holderId) return;
  const said = { holderId, lentUntil: null, now: work.listo.clock.now() };
  const kind = await work.listo.db.tables.thingKinds.findOne({ id: thing.kindId }, work.tx);
  if (!kind?.isHandedOut || 'problem' in actOn(thing, 'handOver', said)) return;
  await actWithin(work, id, { version: thing.version, act: 'handOver', holderId, lentUntil: null });
}

async function writeThing(work: WorkOfViewer, said: ThingSaid): Promise<void> {
  const { id, holderId, state } = said;
  if (id === null) {
    const isHeld = holderId !== undefined && (state === undefined || state === 'inUse');
    await createWithin(
      work,
      { body: over(BARE, said), isLenient: true },
      { state: state ?? (isHeld ? 'inUse' : 'inStore'), holderId: isHeld ? holderId : null },
    );
    return;
  }
  const thing = await work.listo.db.tables.things.findOne({ id }, work.tx, true);
  if (!thing) return;
  const { version } = thing;
  await updateWithin(work, id, { version, body: over(bodyOf(thing), said), isLenient: true });
  if (holderId !== undefined) await handOver(work, id, holderId);
}

/** The one thing of a table’s words: by its marks, else by its name. */
async function findNamed({ db }: Listo, words: string): Promise<ThingRow | null> {
  const mark = toMark(words);
  for (const where of [{ tagMark: mark }, { serialMark: mark }, { name: words }]) {
    const found = await db.tables.things.find(where, { limit: 2 });
    if (found.length === 1) return found[0]!;
  }
  return null;
}

/** What a row says that its thing needs, each of them, once all are there. @returns the words that name nothing */
async function writeNeeds(listo: Listo, viewer: SignedIn, said: ThingSaid): Promise<string | null> {
  const thing = await findNamed(listo, said.tag ?? said.serial ?? said.name);
  if (!thing) return said.name;
  const members: string[] = [];
  for (const words of said.needs!) {
    const found = await findNamed(listo, words);
    if (!found) return words;
    members.push(found.id);
  }
  const needs = [...new Set(members)].map((id) => ({ atLeast: 1, of: [id] }));
  await change(listo, { id: viewer.id }, (tx) => setNeedsWithin({ listo, tx, viewer }, thing.id, { needs }));
  return null;
}

/** Things from a table: made or changed row by row, then what they need, which may stand anywhere in it. */
export async function openThings(listo: Listo, reading: Reading, rows: Rows): Promise<Opened> {
  const mapping = reading.mapping as Mapping;
  const lookups = await readThingLookups(listo, rows, { reading, mapping });
  const read = (cells: string[]) => readThingRow(cells, mapping, lookups);
  return {
    look: (cells) => read(cells).problems,
    nameOf: (cells) => read(cells).thing?.name ?? '',
    async write(job: ImportRow, viewer, { line, cells }) {
      const actor = { id: viewer.id, idempotencyKey: `import:${job.id}:${line}` };
      await change(listo, actor, async (tx) => {
        await writeThing({ listo, tx, viewer }, read(cells).thing!);
        return { ok: true };
      });
    },
    async finish(_, viewer) {
      const refused: ImportProblem[] = [];
      const write = async ({ line, cells }: TableRow): Promise<void> => {
        const { thing } = read(cells);
        if (!thing?.needs) return;
        try {
          const unknown = await writeNeeds(listo, viewer, thing);
          if (unknown !== null) refused.push({ line, field: 'needs', code: 'unknownThing', value: unknown });
        } catch (error) {
          if (!(error instanceof ProblemError)) throw error;
          const [field] = error.extra.fields ?? [];
          refused.push({
            line,
            field: 'needs',
            code: field?.code ?? error.problem,
            value: thing.needs.join('; '),
          });
        }
      };
      for await (const row of rows()) await write(row);
      return refused;
    },
  };
}
