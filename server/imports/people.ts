import type { ImportProblem, Reading } from '../../contract/imports';
import type { PersonBody } from '../../contract/organisation';
import { cellOf, type MappingOf } from '../../core/imports';
import { toAddress } from '../../core/identity';
import { readPersonRow, type PersonField, type PersonLookups, type PersonRow } from '../../core/people';
import { foldText } from '../../core/text';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { createPerson, updatePerson } from '../organisation/keep';
import { setMember } from '../organisation/members';
import { toBody } from '../organisation/person';
import type { SignedIn } from '../sessions/viewer';
import type { Opened, Rows } from './kinds';
import { byName } from './lookups';
import type { ImportRow } from './model';
import type { TableRow } from './table';

type Mapping = MappingOf<PersonField>;
/** Names and addresses with how many they stand for, as they are compared. */
type Counts = Map<string, number>;
const count = (counts: Counts, words: string): void =>
  void counts.set(foldText(words), (counts.get(foldText(words)) ?? 0) + 1);

/** The addresses and the names that the table itself has. */
async function readOwn(rows: Rows, mapping: Mapping): Promise<{ emails: Counts; names: Counts }> {
  const own = { emails: new Map<string, number>(), names: new Map<string, number>() };
  for await (const { cells } of rows()) {
    const email = toAddress(cellOf(cells, mapping, 'email'));
    if (email !== null) count(own.emails, email);
    const name = cellOf(cells, mapping, 'name');
    if (name !== '') count(own.names, name);
  }
  return own;
}

/** What words in a table of people mean: sites and teams by name, managers by address or name, here or in the table. */
async function readPersonLookups(listo: Listo, rows: Rows, mapping: Mapping): Promise<PersonLookups> {
  const { tables, select } = listo.db;
  const people = await select<{ name: string; email: string; leftAt: number | null }>(
    'SELECT name, email, leftAt FROM people',
  );
  const own = await readOwn(rows, mapping);
  const names: Counts = new Map();
  const emails = new Set<string>();
  const left = new Set<string>();
  for (const { name, email, leftAt } of people) {
    if (leftAt !== null) left.add(foldText(email));
    else {
      emails.add(foldText(email));
      // Who stands in the table under an address that is here is the same person.
      if (!own.emails.has(foldText(email))) count(names, name);
    }
  }
  return {
    site: byName((await tables.sites.find({})).map(({ id, name }) => [id, [name]])),
    team: byName((await tables.teams.find({})).map(({ id, name }) => [id, [name.en, name.pt]])),
    manager: (words) => {
      const folded = foldText(words);
      if (emails.has(folded) || own.emails.has(folded)) return 'known';
      const many = (names.get(folded) ?? 0) + (own.names.get(folded) ?? 0);
      return many === 0 ? 'nobody' : many > 1 ? 'several' : 'known';
    },
    hasLeft: (email) => left.has(foldText(email)),
    timesOf: (email) => own.emails.get(foldText(email)) ?? 0,
  };
}

const NOBODY: PersonBody = {
  ...{ name: '', email: '', phone: '', title: '', department: '', siteId: '', place: '', vessel: '' },
  ...{ costCentre: '', managerId: null, language: 'en', isAdministrator: false, mayAskForOthers: false },
  goesFirst: false,
};

/** What a row says of someone, over what is kept of them; the manager comes once all are there. */
const over = (kept: PersonBody, { manager: _, teamId: __, ...said }: PersonRow): PersonBody => ({
  ...kept,
  ...said,
});

type By = { job: ImportRow; viewer: SignedIn };

/** Makes someone, or changes what the row says of whoever has its address. Each row is written once. */
async function writePerson(
  listo: Listo,
  { job, viewer }: By,
  { line, person }: { line: number; person: PersonRow },
) {
  const { tables } = listo.db;
  const actor = { id: viewer.id, idempotencyKey: `import:${job.id}:${line}` };
  const known = await tables.people.findOne({ email: person.email });
  if (!known) {
    const body = { person: over(NOBODY, person), teamId: person.teamId ?? null };
    await createPerson({ listo, viewer, actor }, { ...body, isInvited: job.reading!.isInvited });
    return;
  }
  const { version } = known;
  const changed = over(toBody(known), person);
  await updatePerson({ listo, viewer, actor: { id: viewer.id } }, known.id, { version, person: changed });
  const { teamId } = person;
  if (teamId !== undefined && !(await tables.members.findOne({ personId: known.id, teamId })))
    await setMember(
      { listo, viewer, actor: { id: viewer.id } },
      { personId: known.id, teamId },
      {
        ...{ role: 'agent', groupId: null },
      },
    );
}

/** The one who is here and meant by an address or a name. */
async function findManager({ db }: Listo, words: string): Promise<string | null> {
  const found = await db.select<{ id: string }>(
    'SELECT id FROM people WHERE leftAt IS NULL AND (email = :words OR name = :words) LIMIT 2',
    { words },
  );
  return found.length === 1 ? found[0]!.id : null;
}

async function writeManager(listo: Listo, { viewer }: By, { email, manager }: PersonRow): Promise<void> {
  const person = await listo.db.tables.people.findOne({ email, leftAt: null });
  const managerId = await findManager(listo, manager!);
  if (!person || managerId === null || person.managerId === managerId) return;
  const body = { version: person.version, person: { ...toBody(person), managerId } };
  await updatePerson({ listo, viewer, actor: { id: viewer.id } }, person.id, body);
}

/** People from a table: made or changed row by row, then their managers, who may stand anywhere in it. */
export async function openPeople(listo: Listo, reading: Reading, rows: Rows): Promise<Opened> {
  const mapping = reading.mapping as Mapping;
  const lookups = await readPersonLookups(listo, rows, mapping);
  const read = (cells: string[]) => readPersonRow(cells, mapping, lookups);
  return {
    look: (cells) => read(cells).problems,
    nameOf: (cells) => read(cells).person?.email ?? '',
    write: (job, viewer, { line, cells }) =>
      writePerson(listo, { job, viewer }, { line, person: read(cells).person! }),
    async finish(job, viewer) {
      const refused: ImportProblem[] = [];
      const write = async ({ line, cells }: TableRow): Promise<void> => {
        const { person } = read(cells);
        if (!person?.manager) return;
        try {
          await writeManager(listo, { job, viewer }, person);
        } catch (error) {
          if (!(error instanceof ProblemError)) throw error;
          const [field] = error.extra.fields ?? [];
          refused.push({ line, field: 'manager', code: field?.code ?? error.problem, value: person.manager });
        }
      };
      for await (const row of rows()) await write(row);
      return refused;
    },
  };
}
