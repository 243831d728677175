import type { Transaction } from 'sequelize';
import { definitionOf } from '../catalogue/versions';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';
import type { TimerHandler } from '../timers/runner';
import { advancePlan, endPlan } from './advance';
import { findRunning } from './running';
import type { UnitOfWork } from '../unitOfWork';

/** Lets the plan of a locked ticket go on, if it follows one. */
export async function goOn({ listo, tx }: UnitOfWork, ticket: TicketRecord): Promise<void> {
  const running = await findRunning(listo, ticket, tx);
  if (!running) return;
  await advancePlan({ listo, tx }, running, () => definitionOf(listo, ticket, tx));
}

/** What is left of the plan of a ticket that is no longer wanted. */
export async function leavePlan({ listo, tx }: UnitOfWork, ticket: TicketRecord): Promise<void> {
  const running = await findRunning(listo, ticket, tx);
  if (running && running.row.finishedAt === null) await endPlan({ listo, tx }, running);
}

/** Has every plan that is under way looked at anew: what it runs on has changed. */
export async function lookAtAllPlans(listo: Listo, tx: Transaction): Promise<void> {
  await listo.db.runBound(
    `INSERT INTO timers (ticketNumber, kind, ref, at) SELECT ticketNumber, 'planLook', '', ? FROM plans WHERE finishedAt IS NULL
     ON DUPLICATE KEY UPDATE at = LEAST(at, VALUES(at))`,
    [listo.clock.now()],
    tx,
  );
}

/** A date has come, a step ought to be over, or what the plan runs on has changed. */
export const lookAtPlans: TimerHandler = async (listo, due, tx) => {
  for (const { ticketNumber } of due) {
    const ticket = await listo.db.tables.tickets.findOne({ number: ticketNumber }, tx, true);
    if (ticket) await goOn({ listo, tx }, ticket);
  }
};
