import { nanoid } from 'nanoid';
import { toAddress } from '../../core/identity';
import {
  changePlaces,
  judgeArrival,
  placesOf,
  type ArrivalRefusal,
  type Claims,
  type KnownPerson,
} from '../../core/signOn';
import type { Language } from '../../core/forms';
import { appendSetting } from '../journal/append';
import { makePerson } from '../organisation/keep';
import { setPlace, takeOut } from '../organisation/members';
import type { PersonRow } from '../people/model';
import type { UnitOfWork } from '../unitOfWork';
import type { ProviderRow, SubjectRow } from './model';

/** Somebody has signed in at a provider and does not come in here. */
export class NotLetIn extends Error {
  constructor(readonly code: ArrivalRefusal) {
    super(code);
  }
}

/** What a provider has said of someone, in its own words. */
export type Said = Record<string, unknown> & { sub: string };

const textOf = (value: unknown): string | null =>
  typeof value === 'string' && value.trim() !== '' ? value.trim() : null;

/** What of it matters here. `groupsClaim`: the claim that holds their groups. */
export function readClaims(said: Said, groupsClaim: string): Claims & { language: Language } {
  const groups = groupsClaim === '' ? [] : [said[groupsClaim] ?? []].flat();
  const names = [textOf(said.given_name), textOf(said.family_name)].filter(Boolean).join(' ');
  return {
    subject: said.sub,
    email: toAddress(textOf(said.email) ?? ''),
    // Nothing but a plain true: some say it in words.
    isEmailVerified: said.email_verified === true,
    name: textOf(said.name) ?? textOf(names),
    groups: groups.filter((group) => typeof group === 'string'),
    language: textOf(said.locale)?.toLowerCase().startsWith('pt') ? 'pt' : 'en',
  };
}

async function findKnown(
  { listo, tx }: UnitOfWork,
  providerId: string,
  { subject, email }: Claims,
): Promise<{ bySubject: KnownPerson | null; byEmail: KnownPerson | null; row: SubjectRow | null }> {
  const { people, signOnSubjects } = listo.db.tables;
  const toKnown = (person: PersonRow | null, hasOtherSubject: boolean): KnownPerson | null =>
    person && { id: person.id, hasLeft: person.leftAt !== null, hasOtherSubject };
  const row = await signOnSubjects.findOne({ providerId, subject }, tx, true);
  const byEmail = email === null ? null : await people.findOne({ email }, tx, true);
  const other = byEmail && (await signOnSubjects.findOne({ providerId, personId: byEmail.id }, tx));
  return {
    row,
    bySubject: row && toKnown(await people.findOne({ id: row.personId }, tx, true), false),
    byEmail: toKnown(byEmail, other !== null),
  };
}

/** Brings someone's places in teams to what the provider's groups give. @returns the teams in which it gives the place */
async function follow(
  { listo, tx }: UnitOfWork,
  { groupTable }: ProviderRow,
  { personId, groups, gave }: { personId: string; groups: string[]; gave: string[] },
): Promise<string[]> {
  const { tables } = listo.db;
  const members = await tables.members.find({ personId }, { transaction: tx });
  const teams = await tables.teams.find({ id: groupTable.map(({ teamId }) => teamId) }, { transaction: tx });
  const gives = placesOf(groups, groupTable).filter(({ teamId }) => teams.some(({ id }) => id === teamId));
  const plan = changePlaces(members, gave, gives);
  for (const { teamId, role } of plan.set) {
    const groupId = members.find((member) => member.teamId === teamId)?.groupId ?? null;
    await setPlace({ listo, tx }, { personId, teamId, by: null }, { role, groupId });
  }
  for (const teamId of plan.remove) await takeOut({ listo, tx }, { personId, teamId, by: null });
  return plan.gave;
}

/**
 * Lets in who has signed in at a provider: as who they are known to be, linked by their address, or made.
 * @returns the person's id
 * @throws NotLetIn
 */
export async function arrive(work: UnitOfWork, provider: ProviderRow, said: Said): Promise<string> {
  const { listo, tx } = work;
  const { signOnSubjects } = listo.db.tables;
  const claims = readClaims(said, provider.groupsClaim);
  const { row, ...known } = await findKnown(work, provider.id, claims);
  const arrival = judgeArrival(claims, provider, known);
  if (arrival.kind === 'refused') throw new NotLetIn(arrival.code);
  const personId = arrival.kind === 'made' ? nanoid() : arrival.personId;
  if (arrival.kind === 'made') {
    const { name, email } = arrival;
    const person = { name: name.slice(0, 100), email, siteId: provider.siteId, language: claims.language };
    await makePerson(work, { id: personId, by: null }, person);
  }
  const gave = await follow(work, provider, { ...claims, personId, gave: row?.gave ?? [] });
  if (row) await signOnSubjects.update({ providerId: provider.id, subject: row.subject }, { gave }, tx);
  else {
    const linked = { providerId: provider.id, subject: claims.subject, personId, gave };
    await signOnSubjects.insert({ ...linked, at: listo.clock.now() }, tx);
    const members = await listo.db.tables.members.find({ personId }, { transaction: tx });
    const data = { personId, teamIds: members.map(({ teamId }) => teamId), providerId: provider.id };
    await appendSetting(work, { by: personId, type: 'personLinked', data });
  }
  return personId;
}
