import { forecast } from '../../core/plans';
import type { ServiceRow } from '../catalogue/model';
import { append } from '../journal/append';
import type { TicketRecord } from '../tickets/model';
import { advancePlan } from './advance';
import type { PlanRow, StepRow } from './model';
import { readUsualTimes } from './usual';
import { planOn } from './running';
import type { UnitOfWork } from '../unitOfWork';

/** Whether the first thing that a plan does is to ask: until then its ticket is held for approval. */
export function beginsWithApproval({ plan }: Pick<ServiceRow, 'plan'>): boolean {
  const first = plan?.legs[0]?.id;
  return (
    plan !== null && plan.steps.filter(({ leg }) => leg === first).every(({ kind }) => kind === 'approval')
  );
}

const QUARTER_MS = 900_000;
/** A promise is said to the quarter of an hour, never too early. */
const toQuarter = (instant: number): number => Math.ceil(instant / QUARTER_MS) * QUARTER_MS;

/** Gives a new ticket the plan of its service, promises its end, and lets its first steps begin. */
export async function startPlan(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  service: ServiceRow,
): Promise<void> {
  const { tables } = listo.db;
  const { legs, steps: definitions } = await readUsualTimes({ listo, tx }, ticket, service.plan!);
  const now = ticket.createdAt;
  const steps = definitions.map((definition, position): StepRow => {
    const { kind } = definition;
    return {
      ...{ ticketNumber: ticket.number, stepId: definition.id, position, definition, state: 'waiting' },
      teamId: kind === 'task' || kind === 'ranking' ? definition.teamId : null,
      groupId: kind === 'task' ? (definition.groupId ?? null) : null,
      ...{ assigneeId: null, startedAt: null, finishedAt: null, neededBy: 0, reason: null },
      ...{ ticked: [], sending: null, answerToken: null, place: null, version: 1 },
    };
  });
  const planned = await planOn({ listo, tx }, ticket, { plan: { legs }, steps });
  const { finish } = forecast(planned.plan, now, {}, planned.fields, planned.calendars, now);
  const row: PlanRow = {
    ...{ ticketNumber: ticket.number, legs, startedAt: now, promisedAt: toQuarter(finish) },
    ...{ forecastAt: finish, slippedTo: null, slipTold: null, finishedAt: null },
  };
  await tables.plans.insert(row, tx);
  await tables.planSteps.insertAll(steps, tx);
  await append(
    { listo, tx },
    {
      ...{ at: now, actorId: null, via: 'rule', type: 'promised', ticketNumber: ticket.number },
      audience: 'requester',
      data: { promisedAt: row.promisedAt },
    },
  );
  await advancePlan({ listo, tx }, { ticket, row, steps, ...planned }, () => Promise.resolve(service));
}
