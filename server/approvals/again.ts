import type { Definition } from '../catalogue/model';
import { append } from '../journal/append';
import { goOn } from '../plans/goOn';
import { recordStep } from '../plans/record';
import { makeMove } from '../tickets/move';
import type { TicketRecord } from '../tickets/model';
import { recordChange } from '../tickets/record';
import { withdrawApprovals } from './ask';
import { firstStepOf, openStep } from './process';
import type { UnitOfWork } from '../unitOfWork';

const rule = { actorId: null, via: 'rule' } as const;

/** Agreed to something that is no longer so: those approvals count no more. */
async function setAside({ listo, tx }: UnitOfWork, ticketNumber: number): Promise<void> {
  const { tables } = listo.db;
  await withdrawApprovals({ listo, tx }, ticketNumber);
  const agreed = await tables.approvals.find({ ticketNumber, outcome: 'approved' }, { transaction: tx });
  for (const { id } of agreed) {
    await tables.approvals.update({ id }, { outcome: 'withdrawn' }, tx);
    await append(
      { listo, tx },
      {
        ...{ ...rule, type: 'askWithdrawn', ticketNumber, work: `approval:${id}`, audience: 'team' },
        changes: { outcome: { from: 'approved', to: 'withdrawn' } },
      },
    );
  }
}

/** The steps of a plan that had been agreed come up again. */
async function redoSteps({ listo, tx }: UnitOfWork, ticket: TicketRecord): Promise<void> {
  const steps = await listo.db.tables.planSteps.find({ ticketNumber: ticket.number }, { transaction: tx });
  const agreed = steps.filter(
    ({ definition, state }) => definition.kind === 'approval' && (state === 'done' || state === 'active'),
  );
  for (const step of agreed)
    await recordStep(
      { listo, tx },
      { ticket, step },
      {
        changes: { state: 'waiting', startedAt: null, finishedAt: null, reason: null },
        entry: { type: 'stepRedone', ...rule },
      },
    );
  if (agreed.length > 0) await goOn({ listo, tx }, ticket);
}

/**
 * What was agreed to has changed: whoever agreed, or is being asked, is asked anew about what it is now, since all of
 * it is what they decide by. @throws NoApprover
 */
export async function askAgain(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  service: Definition,
): Promise<void> {
  const known = await listo.db.tables.approvals.find({ ticketNumber: ticket.number }, { transaction: tx });
  const place = firstStepOf(service, ticket);
  if (known.length === 0 && place === null) return;
  await setAside({ listo, tx }, ticket.number);
  if (service.plan) return redoSteps({ listo, tx }, ticket);
  const isHeld = ticket.state === 'held' && ticket.heldFor === 'approval';
  if (place === null) {
    if (isHeld) await makeMove({ listo, tx }, ticket, { name: 'grant', by: 'system', ...rule, input: {} });
    return;
  }
  if (!isHeld) {
    const held = { state: 'held', heldFor: 'approval', heldUntil: null, heldReason: null } as const;
    await recordChange({ listo, tx }, ticket, { changes: held, entry: { type: 'askedAgain', ...rule } });
  }
  await openStep({ listo, tx }, ticket, { service, place });
}
