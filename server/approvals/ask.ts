import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import {
  findVoters,
  type Absence,
  type ApproverRef,
  type Asked,
  type Directory,
  type FoundVoter,
  type ProcessStep,
  type StepApproverRef,
} from '../../core/approvals';
import type { AbsenceRow } from '../absences/model';
import type { Definition } from '../catalogue/model';
import { append } from '../journal/append';
import type { Changes } from '../journal/model';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';
import type { ApprovalRow } from './model';
import { listenFor } from './silence';

/** Nobody can decide, also not in place of those who should. */
export class NoApprover extends Error {
  override name = 'NoApprover';
}

type Line = { id: string; managerId: string | null; leftAt: number | null };

/** The people that approvers of a request can be: those named, and whoever is above them. */
async function readLine(listo: Listo, tx: Transaction, ids: string[]): Promise<Line[]> {
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
  { db }: Listo,
  tx: Transaction,
  refs: ApproverRef[],
  { service, costCentre, asset }: Asked,
): Promise<Directory['owners']> {
  const owners: Directory['owners'] = { service: {}, costCentre: {}, asset: {} };
  const sources = {
    service: `SELECT COALESCE(s.ownerId, (SELECT MIN(m.personId) FROM team_members m WHERE m.teamId = s.teamId AND m.role = 'lead')) AS id
      FROM services s WHERE s.id = :key`,
    costCentre: `SELECT MIN(p.id) AS id FROM people p LEFT JOIN people m ON m.id = p.managerId
      WHERE p.costCentre = :key AND p.leftAt IS NULL AND (m.id IS NULL OR m.costCentre <> p.costCentre)`,
    asset: 'SELECT ownerId AS id FROM assets WHERE id = :key',
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
  listo: Listo,
  tx: Transaction,
  fallbackApproverId: string | null,
  refs: ApproverRef[],
  asked: Asked,
  absences: Absence[],
): Promise<Directory> {
  const { select, tables } = listo.db;
  const teamIds = refs.flatMap((ref) => ('team' in ref ? [ref.team] : []));
  const members =
    teamIds.length === 0 ? [] : await tables.members.find({ teamId: teamIds }, { transaction: tx });
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
  const owners = await readOwners(listo, tx, refs, asked);
  const ids = [
    ...Object.values(owners).flatMap((byKey: Record<string, string>) => Object.values(byKey)),
    ...[asked.requester, asked.recipient, ...named],
    ...members.map(({ personId }) => personId),
    ...absences.flatMap(({ delegate }) => delegate ?? []),
  ];
  const people = await readLine(listo, tx, fallback === null ? ids : [...ids, fallback]);
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
async function readAbsences(listo: Listo, tx: Transaction, now: number): Promise<Absence[]> {
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
  listo: Listo,
  tx: Transaction,
  { answers }: TicketRecord,
  refs: StepApproverRef[],
): Promise<ApproverRef[]> {
  const resolved: ApproverRef[] = [];
  for (const ref of refs) {
    if (!('headOfSite' in ref)) {
      resolved.push(ref);
      continue;
    }
    const name = answers[ref.headOfSite];
    const site =
      typeof name === 'string' && name !== '' ? await listo.db.tables.sites.findOne({ name }, tx) : null;
    if (site?.headId) resolved.push({ person: site.headId });
  }
  return resolved;
}

/** The cost centre and the thing that a ticket is about, where somebody's say hangs on them. */
async function readSubject(
  { db }: Listo,
  tx: Transaction,
  { answers, requesterId }: TicketRecord,
  refs: StepApproverRef[],
): Promise<Pick<Asked, 'costCentre' | 'asset'>> {
  if (!refs.some((ref) => 'ownerOf' in ref && ref.ownerOf !== 'service')) return {};
  const recipient = await db.tables.people.findOne({ id: requesterId }, tx);
  const chosen = Object.values(answers).flatMap((value) =>
    value !== null && typeof value === 'object' && 'id' in value ? [value.id] : [],
  );
  const [thing] = chosen.length === 0 ? [] : await db.tables.assets.find({ id: chosen }, { transaction: tx });
  return {
    ...(recipient && { costCentre: recipient.costCentre }),
    ...(thing && { asset: thing.id }),
  };
}

/** What an approval asks of whom, whether before the work or as a step of a plan. */
export type ApprovalOf = Pick<ProcessStep, 'name' | 'refs' | 'needs' | 'declineBy' | 'silence'>;
/** Where an approval stands: in the process before the work, or in the plan. */
export type ApprovalPlace = { place: number } | { stepId: string };

/** Who decides, as the organisation is now. */
export async function findTicketVoters(
  listo: Listo,
  tx: Transaction,
  ticket: TicketRecord,
  service: Pick<Definition, 'fallbackApproverId'>,
  wanted: StepApproverRef[],
): Promise<FoundVoter[]> {
  const now = listo.clock.now();
  const asked = {
    requester: ticket.raisedById ?? ticket.requesterId,
    recipient: ticket.requesterId,
    service: ticket.serviceId,
    ...(await readSubject(listo, tx, ticket, wanted)),
  };
  const refs = await resolveRefs(listo, tx, ticket, wanted);
  const absences = await readAbsences(listo, tx, now);
  const directory = await readDirectory(listo, tx, service.fallbackApproverId, refs, asked, absences);
  return findVoters(refs, asked, directory, absences, now).voters;
}

/**
 * Opens an approval on a ticket and asks those who decide it.
 * @throws NoApprover
 */
export async function openApproval(
  listo: Listo,
  tx: Transaction,
  ticket: TicketRecord,
  service: Pick<Definition, 'fallbackApproverId'>,
  step: ApprovalOf,
  at: ApprovalPlace,
): Promise<ApprovalRow> {
  const { tables } = listo.db;
  const now = listo.clock.now();
  const voters = await findTicketVoters(listo, tx, ticket, service, step.refs);
  if (voters.length === 0) throw new NoApprover(`nobody can decide on ticket ${ticket.number}`);
  const approvalId = nanoid();
  const { name, needs, declineBy, silence = null } = step;
  const approval: ApprovalRow = {
    ...{ id: approvalId, ticketNumber: ticket.number, stepId: null, place: 0, ...at },
    ...{ name, needs, declineBy, silence, outcome: 'open', startedAt: now, decidedAt: null },
  };
  await tables.approvals.insert(approval, tx);
  const asks = voters.map(({ voter, by, reason }) => ({
    ...{ id: nanoid(), approvalId, ticketNumber: ticket.number, voterId: voter, askedId: by, reason },
    ...{ askedAt: now, silentSince: now, reminders: 0 },
  }));
  await tables.asks.insertAll(asks, tx);
  for (const { id } of asks) await listenFor(listo, tx, ticket, { id, silence, silentSince: now });
  await tables.journal.insertAll(
    voters.map(({ by }, i) => ({
      ...{ at: now, actorId: null, via: 'rule', type: 'asked', ticketNumber: ticket.number },
      work: `approval:${approvalId}`,
      audience: 'requester',
      // The approval opens once, however many are asked.
      changes: i === 0 ? openingOf(ticket) : {},
      data: { approvalId, personId: by, isLater: now > ticket.createdAt },
    })),
    tx,
  );
  return approval;
}

/** What conditions may ask of an approval: how it stands, and of what it is. */
export function openingOf(ticket: Pick<TicketRecord, 'teamId' | 'serviceId' | 'priority'>): Changes {
  const { teamId, serviceId, priority } = ticket;
  const fields = { outcome: 'open', teamId, serviceId, priority };
  return Object.fromEntries(Object.entries(fields).map(([field, to]) => [field, { from: null, to }]));
}

/** Takes back what is still open: the request is no longer wanted. */
export async function withdrawApprovals(listo: Listo, tx: Transaction, ticketNumber: number): Promise<void> {
  const { tables } = listo.db;
  const decidedAt = listo.clock.now();
  const open = await tables.approvals.find({ ticketNumber, outcome: 'open' }, { transaction: tx });
  for (const { id } of open) {
    await tables.approvals.update({ id }, { outcome: 'withdrawn', decidedAt }, tx);
    await append(listo, tx, {
      actorId: null,
      via: 'rule',
      type: 'askWithdrawn',
      ticketNumber,
      work: `approval:${id}`,
      audience: 'team',
      changes: { outcome: { from: 'open', to: 'withdrawn' } },
    });
  }
}
