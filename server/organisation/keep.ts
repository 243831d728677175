import { nanoid } from 'nanoid';
import type { PersonBody } from '../../contract/organisation';
import { toAddress } from '../../core/identity';
import { closesRing } from '../../core/people';
import { isDuplicate } from '../database/failures';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { PersonRow } from '../people/model';
import { requireEmergency } from '../sessions/access';
import { forgetViewers } from '../sessions/viewer';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';
import { inviteWithin } from './invitations';

type Fault = { field: string; code: string };
const FIELDS = [
  ...(['name', 'email', 'phone', 'title', 'department', 'siteId', 'place', 'vessel', 'costCentre'] as const),
  ...(['managerId', 'language', 'isAdministrator', 'mayAskForOthers', 'goesFirst'] as const),
];

/** Who manages whom, from someone up to the top. */
async function readLine({ listo, tx }: UnitOfWork, from: string): Promise<Map<string, string | null>> {
  const line = new Map<string, string | null>();
  for (let at: string | null = from; at !== null && !line.has(at);) {
    const row: Pick<PersonRow, 'managerId'> | null = await listo.db.tables.people.findOne({ id: at }, tx);
    line.set(at, row?.managerId ?? null);
    at = row?.managerId ?? null;
  }
  return line;
}

/** What is wrong with a person as they are to be kept: all of it at once. */
async function findFaults({ listo, tx }: UnitOfWork, person: PersonBody, id: string): Promise<Fault[]> {
  const { people, sites } = listo.db.tables;
  const faults: Fault[] = [];
  const email = toAddress(person.email);
  if (email === null) faults.push({ field: 'person.email', code: 'malformed' });
  else {
    const taken = await people.findOne({ email }, tx);
    if (taken && taken.id !== id) faults.push({ field: 'person.email', code: 'taken' });
  }
  if (!(await sites.findOne({ id: person.siteId }, tx)))
    faults.push({ field: 'person.siteId', code: 'notAChoice' });
  if (person.managerId !== null) {
    const first = await people.findOne({ id: person.managerId, leftAt: null }, tx);
    if (!first) faults.push({ field: 'person.managerId', code: 'notAChoice' });
    else {
      const line = await readLine({ listo, tx }, first.id);
      if (closesRing(id, first.id, (each) => line.get(each) ?? null))
        faults.push({ field: 'person.managerId', code: 'lineComesRound' });
    }
  }
  return faults;
}

async function requireFit(work: UnitOfWork, person: PersonBody, id: string): Promise<void> {
  const fields = await findFaults(work, person, id);
  if (fields.length > 0) throw new ProblemError('fieldsNotValid', { fields });
}

/** Somebody else was quicker with the same address, between the look and the writing of it. */
async function orTaken<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'person.email', code: 'taken' }] });
  }
}

/** How a person is stored: what is blank is not there. */
const toColumns = ({ email, place, vessel, ...person }: PersonBody) => ({
  ...person,
  ...{ email: toAddress(email)!, place: place.trim() || null, vessel: vessel.trim() || null },
});

/** What a person is made of at least. */
type NewPerson = Pick<PersonRow, 'name' | 'email' | 'siteId' | 'language'> & Partial<PersonRow>;

/** Makes a person who fits. `by`: who says so; null: it came about by itself. */
export async function makePerson(
  { listo, tx }: UnitOfWork,
  { id, by, teamIds = [] }: { id: string; by: string | null; teamIds?: string[] },
  person: NewPerson,
): Promise<void> {
  await orTaken(
    listo.db.tables.people.insert(
      {
        ...{ phone: '', title: '', department: '', costCentre: '' },
        ...{ isAdministrator: false, mayAskForOthers: false, goesFirst: false },
        ...{ device: null, passwordHash: null, wantsMail: true, presence: 'available' as const },
        ...{ leftAt: null, version: 1, id, ...person },
      },
      tx,
    ),
  );
  await appendSetting({ listo, tx }, { by, type: 'personMade', data: { personId: id, teamIds } });
}

/** Makes a person, takes them into a team and lets them in, where that is wanted. */
export async function createPerson(
  { listo, viewer, actor }: Changing,
  { person, teamId, isInvited }: { person: PersonBody; teamId: string | null; isInvited: boolean },
): Promise<{ id: string }> {
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const id = nanoid();
    await requireFit({ listo, tx }, person, id);
    if (teamId !== null && !(await tables.teams.findOne({ id: teamId }, tx)))
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'teamId', code: 'notAChoice' }] });
    const teamIds = teamId === null ? [] : [teamId];
    await makePerson({ listo, tx }, { id, by: viewer.id, teamIds }, toColumns(person));
    if (teamId !== null) {
      await tables.members.insert({ teamId, personId: id, role: 'agent', groupId: null }, tx);
      const data = { personId: id, teamIds, role: 'agent' };
      await appendSetting({ listo, tx }, { by: viewer.id, type: 'memberSet', data });
    }
    if (isInvited) await inviteWithin({ listo, tx, viewer }, id);
    return { id };
  });
}

/** Refuses to leave the organisation without anyone who administers it. */
async function requireAdministrator({ listo, tx }: UnitOfWork, id: string): Promise<void> {
  const all = await listo.db.tables.people.find({ isAdministrator: true, leftAt: null }, { transaction: tx });
  if (all.every((each) => each.id === id))
    throw new ProblemError('fieldsNotValid', {
      fields: [{ field: 'person.isAdministrator', code: 'lastAdministrator' }],
    });
}

async function updateWithin(
  { listo, tx, viewer }: WorkOfViewer,
  id: string,
  { version, person }: { version: number; person: PersonBody },
): Promise<{ version: number }> {
  const { tables } = listo.db;
  const before = await tables.people.findOne({ id }, tx, true);
  if (!before) throw new ProblemError('notFound');
  await requireFit({ listo, tx }, person, id);
  const wanted: Partial<PersonRow> = toColumns(person);
  const fields = FIELDS.filter((field) => wanted[field] !== before[field]);
  if (before.version !== version)
    throw new ProblemError('stale', {
      differences: fields.map((field) => ({
        ...{ field, theirs: before[field], yours: wanted[field], by: null },
      })),
    });
  if (fields.length === 0) return { version };
  if (before.isAdministrator && !person.isAdministrator) {
    await requireAdministrator({ listo, tx }, id);
    await requireEmergency({ listo, tx }, id);
  }
  await orTaken(tables.people.update({ id }, { ...wanted, version: version + 1 }, tx));
  const members = await tables.members.find({ personId: id }, { transaction: tx });
  await appendSetting(
    { listo, tx },
    {
      ...{ by: viewer.id, type: 'personChanged' },
      changes: Object.fromEntries(fields.map((field) => [field, { from: before[field], to: wanted[field] }])),
      data: { personId: id, teamIds: members.map(({ teamId }) => teamId), fields },
    },
  );
  return { version: version + 1 };
}

/** Changes what is kept of a person. What they may do changes with it at once. */
export async function updatePerson(
  { listo, viewer, actor }: Changing,
  id: string,
  body: { version: number; person: PersonBody },
): Promise<{ version: number }> {
  const answer = await change(listo, actor, (tx) => updateWithin({ listo, tx, viewer }, id, body));
  forgetViewers(listo);
  return answer;
}
