import { nanoid } from 'nanoid';
import { findDeciders, type ProcessStep } from '../../core/approvals';
import type { Definition } from '../catalogue/model';
import { append } from '../journal/append';
import type { Changes } from '../../core/journal';
import type { TicketRecord } from '../tickets/model';
import { readOrganisation } from './directory';
import type { ApprovalRow } from './model';
import { listenFor } from './listen';
import type { UnitOfWork } from '../unitOfWork';

/** Nobody can decide, also not in place of those who should. */
export class NoApprover extends Error {
  override name = 'NoApprover';
}

/** What an approval asks of whom, whether before the work or as a step of a plan. */
export type ApprovalOf = Pick<ProcessStep, 'name' | 'refs' | 'needs' | 'declineBy' | 'silence'>;
/** Where an approval stands: in the process before the work, or in the plan. */
export type ApprovalPlace = { place: number } | { stepId: string };

/**
 * Opens an approval on a ticket and asks those who decide it.
 * @throws NoApprover
 */
export async function openApproval(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  {
    service,
    step,
    at,
  }: { service: Pick<Definition, 'fallbackApproverId'>; step: ApprovalOf; at: ApprovalPlace },
): Promise<ApprovalRow> {
  const { tables } = listo.db;
  const now = listo.clock.now();
  const { refs, asked, directory, absences } = await readOrganisation({ listo, tx }, ticket, {
    service,
    wanted: step.refs,
  });
  const { voters } = findDeciders(refs, asked, directory, absences, now);
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
  for (const { id } of asks) await listenFor({ listo, tx }, ticket, { id, silence, silentSince: now });
  await tables.journal.insertAll(
    voters.map(({ by, reason }, i) => ({
      ...{ at: now, actorId: null, via: 'rule', type: 'asked', ticketNumber: ticket.number },
      work: `approval:${approvalId}`,
      audience: 'requester',
      // The approval opens once, however many are asked.
      changes: i === 0 ? openingOf(ticket) : {},
      data: { approvalId, personId: by, reason },
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
export async function withdrawApprovals({ listo, tx }: UnitOfWork, ticketNumber: number): Promise<void> {
  const { tables } = listo.db;
  const decidedAt = listo.clock.now();
  const open = await tables.approvals.find({ ticketNumber, outcome: 'open' }, { transaction: tx });
  for (const { id } of open) {
    await tables.approvals.update({ id }, { outcome: 'withdrawn', decidedAt }, tx);
    await append(
      { listo, tx },
      {
        actorId: null,
        via: 'rule',
        type: 'askWithdrawn',
        ticketNumber,
        work: `approval:${id}`,
        audience: 'team',
        changes: { outcome: { from: 'open', to: 'withdrawn' } },
      },
    );
  }
}
