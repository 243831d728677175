import { findNextStep, type ProcessStep } from '../../core/approvals';
import type { Fields } from '../../core/conditions';
import type { Definition } from '../catalogue/model';
import { definitionOf } from '../catalogue/versions';
import { fieldsOf } from '../plans/running';
import type { TicketRecord } from '../tickets/model';
import { openApproval } from './ask';
import type { ApprovalRow } from './model';
import { castVote } from './vote';
import type { UnitOfWork } from '../unitOfWork';

type Judged = Parameters<typeof fieldsOf>[0] & Pick<TicketRecord, 'impact' | 'urgency'>;

/** What a step's condition may ask of a request. */
function processFields(ticket: Judged, { cost }: Pick<Definition, 'cost'>): Fields {
  const { impact, urgency } = ticket;
  return { ...fieldsOf(ticket), impact, urgency, cost: cost ?? 0 };
}

/** The first step that someone has to agree to, or null: it need not be agreed. */
export function firstStepOf(service: Definition, ticket: Judged): number | null {
  return findNextStep(service.approvals, 0, processFields(ticket, service));
}

/** Those who agreed to an earlier step of the process count at once where the step carries them over. */
async function carryOver(
  { listo, tx }: UnitOfWork,
  { carry }: ProcessStep,
  approval: ApprovalRow,
): Promise<void> {
  if (!carry) return;
  const { tables } = listo.db;
  const within = { transaction: tx };
  const { ticketNumber } = approval;
  const earlier = await tables.approvals.find({ ticketNumber, outcome: 'approved' }, within);
  const ids = earlier
    .filter(({ stepId, place }) => stepId === null && place < approval.place)
    .map(({ id }) => id);
  const asks = await tables.asks.find({ ticketNumber }, { ...within, order: ['decidedAt', 'id'] });
  for (const ask of asks.filter(({ approvalId }) => approvalId === approval.id)) {
    const said = asks.find(
      ({ approvalId, voterId, decision }) =>
        ids.includes(approvalId) && voterId === ask.voterId && decision === 'approve',
    );
    if (!said) continue;
    const say = {
      decision: 'approve',
      byId: said.decidedById,
      words: '',
      via: 'rule',
      how: 'carried',
    } as const;
    if ((await castVote({ listo, tx }, { approval, ask }, say)) !== 'open') return;
  }
}

/** Asks for one step of the process that stands before the work. @throws NoApprover */
export async function openStep(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  { service, place }: { service: Definition; place: number },
): Promise<void> {
  const step = service.approvals[place]!;
  const approval = await openApproval({ listo, tx }, ticket, { service, step, at: { place } });
  await carryOver({ listo, tx }, step, approval);
}

/** Goes on after a step was approved. @returns whether nothing is left to agree to @throws NoApprover */
export async function goOnAfter(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  { place }: ApprovalRow,
): Promise<boolean> {
  const service = await definitionOf(listo, ticket, tx);
  const next = findNextStep(service.approvals, place + 1, processFields(ticket, service));
  if (next === null) return true;
  await openStep({ listo, tx }, ticket, { service, place: next });
  return false;
}
