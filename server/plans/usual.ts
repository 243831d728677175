import { listUntimed, withApprovalTimes, type ServicePlan } from '../../core/plans';
import type { UnitOfWork } from '../unitOfWork';

/** So many of the last answers tell how long one usually takes. */
const MOST_READ = 50;

/** A plan with the usual time of its approvals, as they were given for the same service before, on its team's calendar. */
export async function readUsualTimes(
  { listo, tx }: UnitOfWork,
  { serviceId, teamId }: { serviceId: string; teamId: string },
  plan: ServicePlan,
): Promise<ServicePlan> {
  const untimed = listUntimed(plan);
  if (untimed.length === 0) return plan;
  const team = await listo.db.tables.teams.findOne({ id: teamId }, tx);
  const calendar = (await listo.calendars.getAll(tx))[team!.calendarId]!;
  const taken = new Map<string, number[]>();
  for (const stepId of untimed) {
    const rows = await listo.db.select<{ startedAt: number; decidedAt: number }>(
      `SELECT a.startedAt, a.decidedAt FROM approvals a JOIN tickets t ON t.number = a.ticketNumber AND t.serviceId = :serviceId
       WHERE a.stepId = :stepId AND a.outcome IN ('approved', 'declined') ORDER BY a.decidedAt DESC LIMIT ${MOST_READ}`,
      { serviceId, stepId },
      tx,
    );
    taken.set(
      stepId,
      rows.map(({ startedAt, decidedAt }) => calendar.workingBetween(startedAt, decidedAt)),
    );
  }
  return withApprovalTimes(plan, taken);
}
