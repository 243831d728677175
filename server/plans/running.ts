import type { Transaction } from 'sequelize';
import type { CompiledCalendar } from '../../core/calendar';
import type { Fields } from '../../core/conditions';
import {
  forecast,
  toPlan,
  withRoundTheClock,
  type Plan,
  type PlanForecast,
  type Progress,
} from '../../core/plans';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';
import type { PlanRow, StepRow } from './model';
import type { Reading } from '../unitOfWork';

/** A ticket's plan with all that it is computed from. */
export type Running = {
  ticket: TicketRecord;
  row: PlanRow;
  steps: StepRow[];
  plan: Plan;
  fields: Fields;
  calendars: Record<string, CompiledCalendar>;
};

type PlanFields = Pick<
  TicketRecord,
  'answers' | 'kind' | 'priority' | 'serviceId' | 'teamId' | 'place' | 'requesterId'
>;

/** What conditions of steps may ask for: the answers of the form, and the facts of the ticket. */
export function fieldsOf({
  answers,
  kind,
  priority,
  serviceId,
  teamId,
  place,
  requesterId,
}: PlanFields): Fields {
  return { kind, priority, serviceId, teamId, place, requesterId, ...answers };
}

/** The plan of a ticket on the calendars of its teams as they are now. */
export async function planOn(
  { listo, tx }: Reading,
  ticket: PlanFields,
  { plan: { legs }, steps }: { plan: Pick<PlanRow, 'legs'>; steps: Pick<StepRow, 'definition'>[] },
): Promise<Pick<Running, 'plan' | 'fields' | 'calendars'>> {
  const calendars = withRoundTheClock(await listo.calendars.getAll(tx));
  const teams = await listo.db.select<{ id: string; calendarId: string }>(
    'SELECT id, calendarId FROM teams',
    {},
    tx,
  );
  const calendarIds = new Map(teams.map(({ id, calendarId }) => [id, calendarId]));
  const fields = fieldsOf(ticket);
  const plan = toPlan(
    { legs, steps: steps.map(({ definition }) => definition) },
    { calendars, fields, ownTeamId: ticket.teamId, calendarOf: (teamId) => calendarIds.get(teamId)! },
  );
  return { plan, fields, calendars };
}

/** The plan that a ticket follows, if it follows one. */
export async function findRunning(
  listo: Listo,
  ticket: TicketRecord,
  tx?: Transaction,
): Promise<Running | null> {
  const { tables } = listo.db;
  const row = await tables.plans.findOne({ ticketNumber: ticket.number }, tx);
  if (!row) return null;
  const steps = await tables.planSteps.find(
    { ticketNumber: ticket.number },
    { order: ['position'], ...(tx && { transaction: tx }) },
  );
  return { ticket, row, steps, ...(await planOn({ listo, tx }, ticket, { plan: row, steps })) };
}

export function progressOf(steps: StepRow[]): Progress {
  return Object.fromEntries(
    steps.flatMap(({ stepId, state, startedAt, finishedAt }) =>
      state === 'waiting'
        ? []
        : [
            [
              stepId,
              { state, ...(startedAt !== null && { startedAt }), ...(finishedAt !== null && { finishedAt }) },
            ],
          ],
    ),
  );
}

export function forecastOf({ plan, row, steps, fields, calendars }: Running, now: number): PlanForecast {
  return forecast(plan, row.startedAt, progressOf(steps), fields, calendars, now);
}
