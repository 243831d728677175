import { nanoid } from 'nanoid';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { isOpen } from '../../core/tickets';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { append } from '../journal/append';
import { requireTicket } from '../tickets/guard';
import { goOn } from './goOn';
import { findRunning } from './running';
import type { Changing } from '../unitOfWork';

const refuse = (field: string) =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code: 'notAChoice' }] });

/** An effort in hours as a duration; none where it is nothing. */
const toEffort = (hours: number): string | undefined => {
  const minutes = Math.round(hours * 60);
  return minutes > 0 ? `PT${minutes}M` : undefined;
};

/** Adds a task to one ticket's plan: its team gets it the moment it is its turn, and the forecast follows. */
export async function addStep(
  { listo, viewer, actor }: Changing,
  number: number,
  { name, legId, teamId, hours, after }: BodyOf<typeof api.plans.add>,
): Promise<{ stepId: string }> {
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'work' });
    const running = await findRunning(listo, ticket, tx);
    if (!running) throw new ProblemError('notFound');
    if (!isOpen(ticket.state)) throw new ProblemError('moveNotAllowed');
    if (!running.row.legs.some(({ id }) => id === legId)) throw refuse('legId');
    if (!(await tables.teams.findOne({ id: teamId }, tx))) throw refuse('teamId');
    const beside = running.steps
      .filter(({ definition }) => definition.leg === legId)
      .map(({ stepId }) => stepId);
    if (!after.every((id) => beside.includes(id))) throw refuse('after');
    const stepId = `added-${nanoid(8)}`;
    const effort = toEffort(hours);
    const words = { en: name, pt: name };
    await tables.planSteps.insert(
      {
        ...{ ticketNumber: number, stepId, position: running.steps.length, state: 'waiting' },
        definition: {
          ...{ id: stepId, leg: legId, name: words, kind: 'task', teamId },
          ...(effort && { effort }),
          ...(after.length > 0 && { after }),
        },
        ...{ teamId, groupId: null, assigneeId: null, startedAt: null, finishedAt: null, neededBy: 0 },
        ...{ reason: null, ticked: [], sending: null, answerToken: null, place: null, version: 1 },
      },
      tx,
    );
    await append(
      { listo, tx },
      {
        ...{
          actorId: viewer.id,
          via: 'desk',
          type: 'stepAdded',
          ticketNumber: number,
          audience: 'requester',
        },
        data: { stepId, name: words },
      },
    );
    await tables.plans.update({ ticketNumber: number }, { finishedAt: null }, tx);
    await goOn({ listo, tx }, ticket);
    return { stepId };
  });
}
