import type { Absence, ApproverRef, Asked, Directory, StepApproverRef } from '../../core/approvals';
import type { AbsenceRow } from '../absences/model';
import type { Definition } from '../catalogue/model';
import type { MemberRow } from '../people/model';
import type { TicketRecord } from '../tickets/model';
import { getOwn } from '../../core/records';
import type { UnitOfWork } from '../unitOfWork';

type Line = { id: string; managerId: string | null; leftAt: number | null };

/** The people that approvers of a request can be: those named, and whoever is above them. */
async function readLine({ listo, tx }: UnitOfWork, ids: string[]): Promise<Line[]> {
  return listo.db.select<Line>(
    `WITH RECURSIVE line AS (
       SELECT id, managerId, leftAt FROM people WHERE id IN (:ids)
       UNION SELECT p.id, p.managerId, p.leftAt FROM people p JOIN line l ON p.id = l.managerId)
     SELECT * FROM line`,
    { ids },
    tx,
  );
}

/**
 * Whose the service, the cost centre and the thing are of which is asked: a service is its owner's, else its team's first
 * lead's; a cost centre is of the one in it whose manager is outside it (common practice); a thing of whom it was given to.
 */
async function readOwners(
  { listo: { db }, tx }: UnitOfWork,
  refs: ApproverRef[],
  { service, costCentre, asset }: Asked,
): Promise<Directory['owners']> {
  const owners: Directory['owners'] = { service: {}, costCentre: {}, asset: {} };
  const sources = {
    service: `SELECT COALESCE(s.ownerId, (SELECT MIN(m.personId) FROM team_members m WHERE m.teamId = s.teamId AND m.role = 'lead')) AS id
      FROM services s WHERE s.id = :key`,
    costCentre: `SELECT MIN(p.id) AS id FROM people p LEFT JOIN people m ON m.id = p.managerId
      WHERE p.costCentre = :key AND p.leftAt IS NULL AND (m.id IS NULL OR m.costCentre <> p.costCentre)`,
    asset: 'SELECT COALESCE(ownerId, holderId) AS id FROM things WHERE id = :key',
  };
  const keys = { service, costCentre, asset };
  for (const ref of refs) {
    if (!('ownerOf' in ref)) continue;
    const key = keys[ref.ownerOf];
    if (key === undefined) continue;
    const [row] = await db.select<{ id: string | null }>(sources[ref.ownerOf], { key }, tx);
    if (row?.id) owners[ref.ownerOf][key] = row.id;
  }
  return owners;
}

/** The people, teams and owners that approvers are found in. */
async function readDirectory(
  { listo, tx }: UnitOfWork,
  {
    fallbackApproverId,
    refs,
    asked,
    absences,
  }: { fallbackApproverId: string | null; refs: ApproverRef[]; asked: Asked; absences: Absence[] },
): Promise<Directory> {
  const { select } = listo.db;
  const teamIds = refs.flatMap((ref) => ('team' in ref ? [ref.team] : []));
  const members =
    teamIds.length === 0
      ? []
      : await select<Pick<MemberRow, 'teamId' | 'personId' | 'role'>>(
          `SELECT m.teamId, m.personId, m.role FROM team_members m JOIN people p ON p.id = m.personId AND p.leftAt IS NULL
           WHERE m.teamId IN (:teamIds) ORDER BY m.teamId, m.personId`,
          { teamIds },
          tx,
        );
  const teams: Directory['teams'] = {};
  for (const { teamId, personId, role } of members) {
    const team = (teams[teamId] ??= { members: [], leads: [] });
    team.members.push(personId);
    if (role === 'lead') team.leads.push(personId);
  }
  let fallback = fallbackApproverId;
  if (fallback === null) {
    const [administrator] = await select<{ id: string }>(
      'SELECT id FROM people WHERE isAdministrator AND leftAt IS NULL ORDER BY id LIMIT 1',
      {},
      tx,
    );
    fallback = administrator?.id ?? null;
  }
  const named = refs.flatMap((ref) => ('person' in ref ? [ref.person] : []));
  const owners = await readOwners({ listo, tx }, refs, asked);
  const ids = [
    ...Object.values(owners).flatMap((byKey: Record<string, string>) => Object.values(byKey)),
    ...[asked.requester, asked.recipient, ...named],
    ...members.map(({ personId }) => personId),
    ...absences.flatMap(({ delegate }) => delegate ?? []),
  ];
  const people = await readLine({ listo, tx }, fallback === null ? ids : [...ids, fallback]);
  return {
    people: Object.fromEntries(
      people.map(({ id, managerId, leftAt }) => [
        id,
        {
          ...(managerId !== null && { manager: managerId }),
          ...(leftAt !== null && { left: true as const }),
        },
      ]),
    ),
    teams,
    owners,
    fallback: fallback === null ? {} : { [asked.service]: fallback },
  };
}

/** Who is away now, and who decides in their place. */
async function readAbsences({ listo, tx }: UnitOfWork, now: number): Promise<Absence[]> {
  const rows = await listo.db.select<AbsenceRow>(
    'SELECT * FROM absences WHERE fromAt <= :now AND toAt > :now',
    { now },
    tx,
  );
  return rows.map(({ personId, fromAt, toAt, delegateId }) => ({
    ...{ person: personId, from: fromAt, to: toAt },
    ...(delegateId !== null && { delegate: delegateId }),
  }));
}

/** Those who head the sites that the form names, as the people they are. */
async function resolveRefs(
  { listo, tx }: UnitOfWork,
  { answers }: TicketRecord,
  refs: StepApproverRef[],
): Promise<ApproverRef[]> {
  const resolved: ApproverRef[] = [];
  for (const ref of refs) {
    if (!('headOfSite' in ref)) {
      resolved.push(ref);
      continue;
    }
    const name = getOwn(answers, ref.headOfSite);
    const site =
      typeof name === 'string' && name !== '' ? await listo.db.tables.sites.findOne({ name }, tx) : null;
    if (site?.headId) resolved.push({ person: site.headId });
  }
  return resolved;
}

/** The cost centre and the thing that a ticket is about, where somebody's say hangs on them. */
async function readSubject(
  { listo: { db }, tx }: UnitOfWork,
  { answers, requesterId }: TicketRecord,
  refs: StepApproverRef[],
): Promise<Pick<Asked, 'costCentre' | 'asset'>> {
  if (!refs.some((ref) => 'ownerOf' in ref && ref.ownerOf !== 'service')) return {};
  const recipient = await db.tables.people.findOne({ id: requesterId }, tx);
  const chosen = Object.values(answers).flatMap((value) =>
    value !== null && typeof value === 'object' && 'id' in value ? [value.id] : [],
  );
  const [thing] = chosen.length === 0 ? [] : await db.tables.things.find({ id: chosen }, { transaction: tx });
  return {
    ...(recipient && { costCentre: recipient.costCentre }),
    ...(thing && { asset: thing.id }),
  };
}

export type Organisation = {
  refs: ApproverRef[];
  asked: Asked;
  directory: Directory;
  absences: Absence[];
  now: number;
};

/** What it takes to say who decides on a ticket, as the organisation is now. */
export async function readOrganisation(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  {
    service: { fallbackApproverId },
    wanted,
  }: { service: Pick<Definition, 'fallbackApproverId'>; wanted: StepApproverRef[] },
): Promise<Organisation> {
  const now = listo.clock.now();
  const asked = {
    requester: ticket.raisedById ?? ticket.requesterId,
    recipient: ticket.requesterId,
    service: ticket.serviceId,
    ...(await readSubject({ listo, tx }, ticket, wanted)),
  };
  const refs = await resolveRefs({ listo, tx }, ticket, wanted);
  const absences = await readAbsences({ listo, tx }, now);
  const directory = await readDirectory({ listo, tx }, { fallbackApproverId, refs, asked, absences });
  return { refs, asked, directory, absences, now };
}
