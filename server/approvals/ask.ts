import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import { findVoters, type Directory } from '../../core/approvals';
import type { ServiceRow } from '../catalogue/model';
import { ProblemError } from '../http/problems';
import { append } from '../journal/append';
import type { Changes } from '../journal/model';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';

/** The people, teams and owners that approvers are found in. */
async function readDirectory(listo: Listo, tx: Transaction, service: ServiceRow): Promise<Directory> {
  const { select } = listo.db;
  const people = await select<{
    id: string;
    managerId: string | null;
    leftAt: number | null;
    isAdministrator: number;
  }>('SELECT id, managerId, leftAt, isAdministrator FROM people', {}, tx);
  const members = await select<{ teamId: string; personId: string; role: string }>(
    'SELECT * FROM team_members',
    {},
    tx,
  );
  const teams: Directory['teams'] = {};
  for (const { teamId, personId, role } of members) {
    const team = (teams[teamId] ??= { members: [], leads: [] });
    team.members.push(personId);
    if (role === 'lead') team.leads.push(personId);
  }
  const fallback =
    service.fallbackApproverId ??
    people.find(({ isAdministrator, leftAt }) => isAdministrator && leftAt === null)?.id;
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
    owners: { service: {}, costCentre: {}, asset: {} },
    fallback: fallback === undefined ? {} : { [service.id]: fallback },
  };
}

/** Opens the service's approval on a new ticket and asks those who decide it. */
export async function askForApproval(
  listo: Listo,
  tx: Transaction,
  ticket: TicketRecord,
  service: ServiceRow,
): Promise<void> {
  const { tables } = listo.db;
  const step = service.approval!;
  const now = listo.clock.now();
  const asked = {
    requester: ticket.raisedById ?? ticket.requesterId,
    recipient: ticket.requesterId,
    service: service.id,
  };
  const { voters } = findVoters(step.refs, asked, await readDirectory(listo, tx, service), [], now);
  if (voters.length === 0)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'serviceId', code: 'noApprover' }] });
  const approvalId = nanoid();
  const { name, needs, declineBy } = step;
  await tables.approvals.insert(
    {
      id: approvalId,
      ticketNumber: ticket.number,
      name,
      needs,
      declineBy,
      outcome: 'open',
      startedAt: now,
      decidedAt: null,
    },
    tx,
  );
  await tables.asks.insertAll(
    voters.map(({ voter, by, reason }) => ({
      id: nanoid(),
      approvalId,
      ticketNumber: ticket.number,
      voterId: voter,
      askedId: by,
      reason,
      askedAt: now,
    })),
    tx,
  );
  for (const [i, { by }] of voters.entries())
    await append(listo, tx, {
      actorId: null,
      via: 'rule',
      type: 'asked',
      ticketNumber: ticket.number,
      work: `approval:${approvalId}`,
      audience: 'requester',
      // The approval opens once, however many are asked.
      changes: i === 0 ? openingOf(ticket) : {},
      data: { approvalId, personId: by },
    });
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
