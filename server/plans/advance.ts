import { nextSteps } from '../../core/plans';
import type { LocalText } from '../../core/forms';
import { fillBlanks } from '../../core/text';
import { isOpen } from '../../core/tickets';
import type { Definition } from '../catalogue/model';
import { append } from '../journal/append';
import { readTicketBlanks } from '../tickets/blanks';
import { makeMove } from '../tickets/move';
import { beginAutomatic } from './automatic';
import { findOnlyLead } from '../people/leads';
import type { StepRow } from './model';
import { recordStep } from './record';
import { setSlipWord } from './slip';
import { fieldsOf, forecastOf, progressOf, type Running } from './running';
import type { UnitOfWork } from '../unitOfWork';

/** A forecast this much past the promise is told of; and so much further, told of again. */
const SLIP_MS = 60_000;
const AGAIN_MS = 86_400_000;
const HOUR_MS = 3_600_000;

const ALL_DONE: LocalText = { en: 'Every step is done.', pt: 'Todos os passos estão feitos.' };

/** The service of the ticket, read where it is needed. */
type ServiceOf = () => Promise<Definition>;

const rule = { actorId: null, via: 'rule' } as const;
const bySystem = { by: 'system', ...rule } as const;

/** A step's turn has come: its team gets it, its approvers are asked, or it does itself. */
async function begin(
  { listo, tx }: UnitOfWork,
  { ticket }: Running,
  { serviceOf, step, neededBy }: { serviceOf: ServiceOf; step: StepRow; neededBy: number },
): Promise<void> {
  const now = listo.clock.now();
  const { definition } = step;
  const started: Partial<StepRow> = { state: 'active', startedAt: now, neededBy };
  if (definition.kind === 'ranking')
    started.assigneeId = await findOnlyLead({ listo, tx }, definition.teamId);
  await recordStep(
    { listo, tx },
    { ticket, step },
    { changes: started, entry: { type: 'stepStarted', ...rule } },
  );
  if (definition.kind === 'automatic')
    await beginAutomatic({ listo, tx }, ticket, { step, action: definition.action });
  if (definition.kind !== 'approval') return;
  const isAsked = await listo.ports.plans.ask(
    { listo, tx },
    {
      ...{ ticket, service: await serviceOf(), stepId: step.stepId, definition },
    },
  );
  if (!isAsked)
    await recordStep(
      { listo, tx },
      { ticket, step },
      { changes: { state: 'failed', reason: 'noApprover' }, entry: { type: 'stepFailed', ...rule } },
    );
}

/** Begins and leaves out whatever has come up, until nothing more does. */
async function beginAll({ listo, tx }: UnitOfWork, running: Running, serviceOf: ServiceOf): Promise<boolean> {
  const { plan, steps, ticket } = running;
  for (;;) {
    const now = listo.clock.now();
    // A step may have set a field that the next ones ask for.
    running.fields = fieldsOf(ticket);
    const { fields } = running;
    const { start, skip, finished } = nextSteps(plan, progressOf(steps), fields, now);
    if (start.length === 0 && skip.length === 0) return finished;
    const stepOf = (id: string): StepRow => steps.find(({ stepId }) => stepId === id)!;
    for (const id of skip)
      await recordStep(
        { listo, tx },
        { ticket, step: stepOf(id) },
        { changes: { state: 'skipped', finishedAt: now }, entry: { type: 'stepNotNeeded', ...rule } },
      );
    const { steps: times } = forecastOf(running, now);
    for (const id of start)
      await begin({ listo, tx }, running, { serviceOf, step: stepOf(id), neededBy: times[id]!.latestFinish });
  }
}

/** Tells the holder when the forecast passes the promise, and the requester's page that it is back. */
async function watchPromise(
  { listo, tx }: UnitOfWork,
  { ticket, row, steps }: Running,
  { finish, driving }: { finish: number; driving: string[] },
) {
  const isLate = finish > row.promisedAt + SLIP_MS;
  const isTold = row.slippedTo !== null && finish < row.slippedTo + AGAIN_MS;
  const slippedTo = !isLate ? null : isTold ? row.slippedTo : finish;
  if (slippedTo === row.slippedTo && Math.abs(finish - row.forecastAt) < SLIP_MS) return;
  await listo.db.tables.plans.update({ ticketNumber: ticket.number }, { forecastAt: finish, slippedTo }, tx);
  Object.assign(row, { forecastAt: finish, slippedTo });
  if (!isLate || isTold) return;
  await setSlipWord({ listo, tx }, ticket);
  const names = driving.map((id) => steps.find(({ stepId }) => stepId === id)!.definition.name);
  await append(
    { listo, tx },
    {
      ...{ ...rule, type: 'slipped', ticketNumber: ticket.number, audience: 'team' },
      data: { promisedAt: row.promisedAt, forecastAt: finish, driving: names },
    },
  );
}

/** Looks again when a step may begin for its date, or when one that runs ought to be over. */
async function setLook({ listo, tx }: UnitOfWork, running: Running, number: number): Promise<void> {
  const now = listo.clock.now();
  const progress = progressOf(running.steps);
  const { steps } = forecastOf(running, now);
  const instants = running.plan.steps.flatMap(({ id, notBefore }) => {
    const end = steps[id]!.earliestFinish;
    // One that ought to be over moves its end with every look: by the hour is often enough.
    if (progress[id]?.state === 'active') return [end > now ? end + 1_000 : now + HOUR_MS];
    if (progress[id] || notBefore === undefined) return [];
    return [notBefore > now ? notBefore : now + HOUR_MS];
  });
  const next = Math.min(...instants);
  const look = { ticketNumber: number, kind: 'planLook', ref: '' } as const;
  const { timers } = listo.db.tables;
  if (Number.isFinite(next)) await timers.insertAll([{ ...look, at: next }], tx, { updates: ['at'] });
  else await timers.remove(look, tx);
}

/**
 * Lets a ticket's plan go on: steps whose turn has come begin, its forecast is made anew, its holder is told when the
 * promise slips, and with its last step the ticket is done.
 */
export async function advancePlan(
  { listo, tx }: UnitOfWork,
  running: Running,
  serviceOf: ServiceOf,
): Promise<void> {
  const { ticket, row, steps } = running;
  if (row.finishedAt !== null || !isOpen(ticket.state)) return;
  const finished = await beginAll({ listo, tx }, running, serviceOf);
  const isHeld = ticket.state === 'held' && ticket.heldFor === 'approval';
  const approvals = steps.filter(({ definition }) => definition.kind === 'approval');
  const isRefused = approvals.some(({ state, reason }) => state === 'failed' && reason === 'declined');
  // One that nobody can decide holds the ticket until someone mends that.
  const isAsking = approvals.some(({ state }) => state === 'active' || state === 'failed');
  if (isHeld && isRefused) {
    await makeMove({ listo, tx }, ticket, { name: 'decline', ...bySystem, input: {} });
    return endPlan({ listo, tx }, running);
  }
  if (isHeld && !isAsking) await makeMove({ listo, tx }, ticket, { name: 'grant', ...bySystem, input: {} });
  const { finish, driving } = forecastOf(running, listo.clock.now());
  await watchPromise({ listo, tx }, running, { finish, driving });
  await setLook({ listo, tx }, running, ticket.number);
  if (!finished) return;
  const finishedAt = Math.max(...steps.map((step) => step.finishedAt ?? 0));
  await listo.db.tables.plans.update({ ticketNumber: ticket.number }, { finishedAt }, tx);
  row.finishedAt = finishedAt;
  const { plan, form } = await serviceOf();
  const { language, blanksIn } = await readTicketBlanks({ listo, tx }, ticket, form);
  const solution = fillBlanks((plan?.doneWords ?? ALL_DONE)[language], blanksIn(language));
  await makeMove({ listo, tx }, ticket, { name: 'finish', ...bySystem, input: { solution } });
}

/** The ticket is no longer wanted: what has not been done is not to be done. */
export async function endPlan({ listo, tx }: UnitOfWork, { ticket, row, steps }: Running): Promise<void> {
  const now = listo.clock.now();
  await listo.db.tables.plans.update({ ticketNumber: ticket.number }, { finishedAt: now }, tx);
  row.finishedAt = now;
  await listo.db.tables.timers.remove({ ticketNumber: ticket.number, kind: 'planLook' }, tx);
  for (const step of steps.filter(({ state }) => state === 'active' || state === 'waiting'))
    await recordStep(
      { listo, tx },
      { ticket, step },
      {
        changes: { state: 'skipped', finishedAt: now, reason: 'withdrawn' },
        entry: { type: 'stepWithdrawn', ...rule },
      },
    );
}
