import { createRights, may } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { append } from '../journal/append';
import { requireTicket } from '../tickets/guard';
import type { TicketRecord } from '../tickets/model';
import type { TimerHandler } from '../timers/runner';
import type { PlanRow } from './model';
import { findRunning, forecastOf } from './running';
import type { Changing, UnitOfWork } from '../unitOfWork';

/** So long (working time of the team) someone has to look at it before the requester reads of it by itself. */
const LOOK_MS = 2 * 3_600_000;

/** Has the requester told of a slip after a while, unless someone tells them before or it is caught up. */
export async function setSlipWord(
  { listo, tx }: UnitOfWork,
  { number, teamId }: TicketRecord,
): Promise<void> {
  const team = await listo.db.tables.teams.findOne({ id: teamId }, tx);
  const calendar = (await listo.calendars.getAll(tx))[team?.calendarId ?? ''];
  const at = calendar?.addWorking(listo.clock.now(), LOOK_MS) ?? listo.clock.now() + LOOK_MS;
  const word = { ticketNumber: number, kind: 'slipWord', ref: '', at } as const;
  await listo.db.tables.timers.insertAll([word], tx, { updates: ['at'] });
}

async function tell(
  { listo, tx }: UnitOfWork,
  plan: PlanRow,
  { actorId, via }: { actorId: string | null; via: 'desk' | 'timer' },
): Promise<void> {
  const { ticketNumber, promisedAt, forecastAt, slippedTo } = plan;
  await listo.db.tables.plans.update({ ticketNumber }, { slipTold: slippedTo }, tx);
  await listo.db.tables.timers.remove({ ticketNumber, kind: 'slipWord' }, tx);
  await append(
    { listo, tx },
    {
      ...{ actorId, via, type: 'slipTold', ticketNumber, audience: 'requester' },
      data: { promisedAt, forecastAt },
    },
  );
}

/** Nobody has looked in time: the requester reads of it all the same. */
export const giveSlipWord: TimerHandler = async (listo, due, tx) => {
  for (const { ticketNumber } of due) {
    const plan = await listo.db.tables.plans.findOne({ ticketNumber }, tx, true);
    const isOwed = plan?.finishedAt === null && plan.slippedTo !== null && plan.slipTold !== plan.slippedTo;
    if (isOwed) await tell({ listo, tx }, plan, { actorId: null, via: 'timer' });
  }
};

/** Someone has looked and tells the requester now. */
export async function tellSlip({ listo, viewer, actor }: Changing, number: number): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const { ticket, guarded } = await requireTicket({ listo, viewer, tx }, { number, action: 'read' });
    if (!may(createRights(viewer), 'work', guarded)) throw new ProblemError('forbidden');
    const running = await findRunning(listo, ticket, tx);
    if (!running) throw new ProblemError('notFound');
    const { row } = running;
    const forecastAt = forecastOf(running, listo.clock.now()).finish;
    const isTold = row.slipTold !== null && row.slipTold === row.slippedTo;
    if (row.finishedAt !== null || forecastAt <= row.promisedAt || isTold)
      throw new ProblemError('moveNotAllowed');
    const plan = { ...row, forecastAt, slippedTo: row.slippedTo ?? forecastAt };
    await listo.db.tables.plans.update(
      { ticketNumber: number },
      { forecastAt, slippedTo: plan.slippedTo },
      tx,
    );
    await tell({ listo, tx }, plan, { actorId: viewer.id, via: 'desk' });
    return OK;
  });
}
