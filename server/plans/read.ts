import type { PlanStepView, PlanView } from '../../contract/plans';
import { holds } from '../../core/conditions';
import type { LocalText } from '../../core/forms';
import { findWaysBack, listStepMoves, type PlanForecast } from '../../core/plans';
import { isOpen } from '../../core/tickets';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import type { TicketRecord } from '../tickets/model';
import type { StepRow } from './model';
import { findRunning, forecastOf, progressOf, type Running } from './running';
import { readPlaces } from './ranking';
import { mayMoveStep } from './steps';
import type { Viewing } from '../unitOfWork';

const DAY = 86_400_000;
const MOST_DAYS = 180;

const isOver = ({ state }: StepRow): boolean => state === 'done' || state === 'skipped';

/** What a step that has not begun waits for: the legs before it, else steps of its own leg. */
function waitsFor({ row, steps }: Running, { definition, state }: StepRow): LocalText[] {
  if (state !== 'waiting') return [];
  const inLeg = steps.filter((step) => definition.after?.includes(step.stepId) && !isOver(step));
  const place = row.legs.findIndex(({ id }) => id === definition.leg);
  const legs = row.legs
    .slice(0, place)
    .filter(({ id }) => steps.some((step) => step.definition.leg === id && !isOver(step)));
  return legs.length > 0 ? legs.map(({ name }) => name) : inLeg.map((step) => step.definition.name);
}

type Around = {
  running: Running;
  forecast: PlanForecast;
  approvalIds: Map<string, string>;
  rankings: Map<string, { place: number; count: number }>;
  teams: Map<string, LocalText>;
  people: Awaited<ReturnType<typeof readPeople>>;
  viewer: SignedIn;
  rights: readonly string[];
};

function toView(step: StepRow, around: Around): PlanStepView {
  const { running, forecast, approvalIds, rankings, teams, people, viewer, rights } = around;
  const { stepId, definition, state, teamId, assigneeId, ticked } = step;
  const planned = running.plan.steps.find(({ id }) => id === stepId)!;
  const { earliestStart, earliestFinish, latestFinish, slack } = forecast.steps[stepId]!;
  const isTeamSide = rights.includes('readNotes');
  const isTicketOpen = isOpen(running.ticket.state);
  return {
    id: stepId,
    version: step.version,
    name: definition.name,
    kind: definition.kind,
    state,
    isWanted: state !== 'waiting' || !planned.when || holds(planned.when, running.fields),
    team: teamId === null ? null : { id: teamId, name: teams.get(teamId)! },
    assignee: assigneeId === null ? null : (people.get(assigneeId) ?? null),
    startedAt: step.startedAt,
    finishedAt: step.finishedAt,
    ...{ earliestStart, earliestFinish, latestFinish, slack },
    decides: forecast.driving.includes(stepId),
    waitsFor: waitsFor(running, step),
    notBefore: state === 'waiting' ? (planned.notBefore ?? null) : null,
    reason: isTeamSide ? step.reason : null,
    checklist:
      definition.kind === 'task' && isTeamSide
        ? (definition.checklist ?? []).map((text, i) => ({ text, isTicked: ticked.includes(i) }))
        : [],
    approvalId: approvalIds.get(stepId) ?? null,
    sending: isTeamSide ? step.sending : null,
    ranking: rankings.get(stepId) ?? null,
    moves: listStepMoves({ kind: definition.kind, state, isTicketOpen }).filter((move) =>
      mayMoveStep(viewer, step, { move, mayWork: rights.includes('work') }),
    ),
  };
}

/** The plan of a ticket as it stands at this moment, with its forecast; null where it follows none. */
export async function readPlan(
  { listo, viewer }: Viewing,
  ticket: TicketRecord,
  rights: readonly string[],
): Promise<PlanView | null> {
  const running = await findRunning(listo, ticket);
  if (!running) return null;
  const { row, steps, plan, fields, calendars } = running;
  const now = listo.clock.now();
  const at = row.finishedAt ?? now;
  const forecast = forecastOf(running, at);
  const teams = await listo.db.tables.teams.find({});
  const approvals = await listo.db.tables.approvals.find(
    { ticketNumber: ticket.number },
    { order: ['startedAt'] },
  );
  const around: Around = {
    ...{ running, forecast, viewer, rights },
    approvalIds: new Map(approvals.flatMap(({ id, stepId }) => (stepId === null ? [] : [[stepId, id]]))),
    rankings: await readPlaces(listo, steps),
    teams: new Map(teams.map(({ id, name }) => [id, name])),
    people: await readPeople(
      listo,
      steps.map(({ assigneeId }) => assigneeId),
    ),
  };
  const calendarId = teams.find(({ id }) => id === ticket.teamId)!.calendarId;
  const end = Math.min(Math.max(forecast.finish, row.promisedAt) + DAY, row.startedAt + MOST_DAYS * DAY);
  const isLate = row.finishedAt === null && forecast.finish > row.promisedAt;
  return {
    startedAt: row.startedAt,
    promisedAt: row.promisedAt,
    forecastAt: forecast.finish,
    finishedAt: row.finishedAt,
    legs: row.legs.map(({ id, name }) => ({
      id,
      name,
      steps: steps.filter(({ definition }) => definition.leg === id).map((step) => toView(step, around)),
    })),
    mayTellSlip:
      rights.includes('work') && isLate && (row.slipTold === null || row.slipTold !== row.slippedTo),
    mayAdd: rights.includes('work') && isOpen(ticket.state),
    waysBack: isLate
      ? findWaysBack(plan, row.startedAt, progressOf(steps), fields, calendars, now, row.promisedAt)
      : [],
    windows: calendars[calendarId]!.windowsBetween(row.startedAt - DAY, end),
  };
}
