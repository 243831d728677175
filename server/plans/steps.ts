import type { TicketEntryKind } from '../../core/journal';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { listStepMoves, type StepMove } from '../../core/plans';
import { createRights, may, mayRank } from '../../core/rights';
import { isOpen } from '../../core/tickets';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { goOn } from './goOn';
import type { StepRow } from './model';
import { recordStep } from './record';
import type { Changing } from '../unitOfWork';

const TYPES = {
  take: 'stepTaken',
  finish: 'stepDone',
  leaveOut: 'stepLeftOut',
  redo: 'stepRedone',
  tick: 'stepTicked',
} as const satisfies Record<StepMove, TicketEntryKind>;

/** Whose step it is: its team does it; who holds the ticket may do all, but for letting go ahead what a lead ranks. */
export function mayMoveStep(
  viewer: SignedIn,
  { teamId, definition }: Pick<StepRow, 'teamId' | 'definition'>,
  { move, mayWork }: { move: StepMove; mayWork: boolean },
): boolean {
  if (definition.kind === 'ranking') return mayRank(viewer, teamId) || (mayWork && move !== 'finish');
  return mayWork || viewer.teams.some((team) => team.teamId === teamId);
}

function wantedOf(
  { name, reason, ticked }: BodyOf<typeof api.plans.move>,
  viewer: SignedIn,
  now: number,
): Partial<StepRow> {
  switch (name) {
    case 'take':
      return { assigneeId: viewer.id };
    case 'finish':
      return { state: 'done', finishedAt: now };
    case 'leaveOut':
      return { state: 'skipped', finishedAt: now, reason: reason.trim() };
    case 'redo':
      return {
        ...{ state: 'waiting', startedAt: null, finishedAt: null, reason: null },
        ...{ ticked: [], sending: null, place: null },
      };
    case 'tick':
      return { ticked: [...new Set(ticked)].sort((a, b) => a - b) };
  }
}

/** Moves a step: taken, ticked, done, left out with a reason, or done anew. What follows from it happens with it. */
export async function moveStep(
  { listo, viewer, actor }: Changing,
  { number, stepId }: { number: number; stepId: string },
  body: BodyOf<typeof api.plans.move>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { ticket, guarded } = await requireTicket({ listo, viewer, tx }, { number, action: 'read' });
    const { tables } = listo.db;
    const step = await tables.planSteps.findOne({ ticketNumber: number, stepId }, tx, true);
    if (!step) throw new ProblemError('notFound');
    const mayWork = may(createRights(viewer), 'work', guarded);
    if (!mayMoveStep(viewer, step, { move: body.name, mayWork })) throw new ProblemError('forbidden');
    if (step.version !== body.version)
      throw new ProblemError('stale', {
        differences: [{ field: 'state', theirs: step.state, yours: body.name, by: null }],
      });
    const { kind } = step.definition;
    if (!listStepMoves({ kind, state: step.state, isTicketOpen: isOpen(ticket.state) }).includes(body.name))
      throw new ProblemError('moveNotAllowed');
    if (body.name === 'leaveOut' && body.reason.trim() === '')
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'reason', code: 'missing' }] });
    const wanted = wantedOf(body, viewer, listo.clock.now());
    const type = TYPES[body.name];
    await recordStep(
      { listo, tx },
      { ticket, step },
      { changes: wanted, entry: { type, actorId: viewer.id, via: 'desk' } },
    );
    // A plan that was over goes on with what is to be done anew.
    if (body.name === 'redo') await tables.plans.update({ ticketNumber: number }, { finishedAt: null }, tx);
    if (body.name !== 'take' && body.name !== 'tick') await goOn({ listo, tx }, ticket);
    return { version: step.version };
  });
}
