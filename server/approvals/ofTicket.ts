import { ProblemError } from '../http/problems';
import { leavePlan } from '../plans/goOn';
import { beginsWithApproval, startPlan } from '../plans/start';
import type { PlanPorts } from '../plans/ports';
import type { TicketPorts } from '../tickets/ports';
import { askAgain } from './again';
import { NoApprover, openApproval, withdrawApprovals } from './ask';
import { firstStepOf, openStep } from './process';

/** Says where nobody can agree, at the field that asked for it. @throws ProblemError */
async function requireApprover(field: string, ask: () => Promise<void>): Promise<void> {
  try {
    await ask();
  } catch (error) {
    if (!(error instanceof NoApprover)) throw error;
    throw new ProblemError('fieldsNotValid', { fields: [{ field, code: 'noApprover' }] });
  }
}

export const isAgreedFirst: TicketPorts['isAgreedFirst'] = (service, judged) =>
  firstStepOf(service, judged) !== null || beginsWithApproval(service);

/** A plan begins with what has to be agreed itself; without one, the first step of the process is asked. */
export const onOpened: TicketPorts['opened'] = async ({ listo, tx }, ticket, service) => {
  if (service.plan) return startPlan({ listo, tx }, ticket, service);
  const place = firstStepOf(service, ticket);
  if (place !== null)
    await requireApprover('serviceId', () => openStep({ listo, tx }, ticket, { service, place }));
};

export const onMoved: TicketPorts['moved'] = async ({ listo, tx }, ticket, move) => {
  if (move === 'withdraw' || move === 'decline') await withdrawApprovals({ listo, tx }, ticket.number);
  if (move === 'withdraw') await leavePlan({ listo, tx }, ticket);
};

export const onAnswersChanged: TicketPorts['answersChanged'] = (work, ticket, service) =>
  requireApprover('answers', () => askAgain(work, ticket, service));

export const askForStep: PlanPorts['ask'] = async (
  { listo, tx },
  { ticket, service, stepId, definition },
) => {
  try {
    await openApproval({ listo, tx }, ticket, { service, step: definition, at: { stepId } });
    return true;
  } catch (error) {
    if (error instanceof NoApprover) return false;
    throw error;
  }
};
