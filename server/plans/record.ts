import { append } from '../journal/append';
import type { Changes, NewEntry, StepEntry, Via } from '../../core/journal';
import type { TicketRecord } from '../tickets/model';
import type { StepRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

type Recorded = StepEntry & { actorId: string | null; via: Via };

/** The fields of a step that conditions of promises may ask for, when it begins. */
function openingOf(step: StepRow, ticket: TicketRecord): Changes {
  const { serviceId, priority } = ticket;
  const fields = { teamId: step.teamId, serviceId, priority, kind: step.definition.kind };
  return Object.fromEntries(Object.entries(fields).map(([field, to]) => [field, { from: null, to }]));
}

/** Changes a step of a locked ticket and records it: the one door through which steps change. */
export async function recordStep(
  { listo, tx }: UnitOfWork,
  { ticket, step }: { ticket: TicketRecord; step: StepRow },
  {
    changes: wanted,
    entry: { type, actorId, via, data = {} },
  }: { changes: Partial<StepRow>; entry: Recorded },
): Promise<void> {
  const recorded = ['state', 'assigneeId', 'teamId'] as const;
  const changes: Changes = type === 'stepStarted' ? openingOf(step, ticket) : {};
  for (const field of recorded)
    if (wanted[field] !== undefined && wanted[field] !== step[field])
      changes[field] = { from: step[field], to: wanted[field] };
  const version = step.version + 1;
  const { ticketNumber, stepId } = step;
  await listo.db.tables.planSteps.update({ ticketNumber, stepId }, { ...wanted, version }, tx);
  Object.assign(step, wanted, { version });
  const frame = { actorId, via, ticketNumber, work: `step:${stepId}`, audience: 'team', changes };
  const ofStep = { stepId, name: step.definition.name, ...(step.reason !== null && { reason: step.reason }) };
  // What the kind carries, with what names the step, is what its entries carry.
  await append({ listo, tx }, { ...frame, type, data: { ...data, ...ofStep } } as NewEntry);
}
