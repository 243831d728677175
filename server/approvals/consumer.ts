import type { Consumer } from '../journal/consumer';
import { goOn as goOnWithPlan } from '../plans/goOn';
import { recordStep } from '../plans/record';
import type { TicketRecord } from '../tickets/model';
import type { ApprovalRow } from './model';
import { makeMove } from '../tickets/move';
import { append } from '../journal/append';
import { NoApprover } from './ask';
import { goOnAfter } from './process';
import type { UnitOfWork } from '../unitOfWork';

/** A step of a plan is done once it is approved, and fails where it is declined. */
async function decideStepOf(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  { stepId, outcome, decidedAt }: ApprovalRow,
): Promise<void> {
  const step = await listo.db.tables.planSteps.findOne(
    { ticketNumber: ticket.number, stepId: stepId! },
    tx,
    true,
  );
  if (step?.state !== 'active') return;
  const isApproved = outcome === 'approved';
  const wanted = isApproved
    ? ({ state: 'done', finishedAt: decidedAt } as const)
    : ({ state: 'failed', reason: 'declined' } as const);
  const type = isApproved ? 'stepDone' : 'stepFailed';
  await recordStep(
    { listo, tx },
    { ticket, step },
    { changes: wanted, entry: { type, actorId: null, via: 'rule' } },
  );
  await goOnWithPlan({ listo, tx }, ticket);
}

/** Asks for the next step of the process; where nobody can decide that, it stays held and says so to its team. */
async function goOn(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  approval: ApprovalRow,
): Promise<boolean> {
  try {
    return await goOnAfter({ listo, tx }, ticket, approval);
  } catch (error) {
    if (!(error instanceof NoApprover)) throw error;
    await append(
      { listo, tx },
      {
        ...{ actorId: null, via: 'rule', type: 'noApprover', ticketNumber: ticket.number, audience: 'team' },
      },
    );
    return false;
  }
}

/** Lets a ticket go on once its approval is decided. */
export const decidingConsumer: Consumer = {
  name: 'deciding',
  hears: ({ type, data }) => type === 'decided' && data.outcome !== 'open',
  async handle(listo, decided, tx) {
    const { tables } = listo.db;
    for (const entry of decided) {
      if (entry.type !== 'decided') continue;
      const { ticketNumber, data } = entry;
      const ticket = await tables.tickets.findOne({ number: ticketNumber }, tx, true);
      const approval = await tables.approvals.findOne({ id: data.approvalId }, tx);
      // Set aside meanwhile: it was agreed to something else.
      if (!approval || approval.outcome !== data.outcome) continue;
      if (ticket && approval.stepId) {
        await decideStepOf({ listo, tx }, ticket, approval);
        continue;
      }
      // Withdrawn meanwhile: nothing goes on.
      if (ticket?.state !== 'held' || ticket.heldFor !== 'approval') continue;
      if (data.outcome === 'approved' && !(await goOn({ listo, tx }, ticket, approval))) continue;
      const name = data.outcome === 'approved' ? 'grant' : 'decline';
      await makeMove({ listo, tx }, ticket, { name, by: 'system', actorId: null, via: 'rule', input: {} });
    }
  },
};
