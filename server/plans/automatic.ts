import { nanoid } from 'nanoid';
import type { AutomaticAction } from '../../core/plans';
import { recordChange } from '../tickets/record';
import type { TicketRecord } from '../tickets/model';
import type { StepRow } from './model';
import { recordStep } from './record';
import type { UnitOfWork } from '../unitOfWork';

const rule = { actorId: null, via: 'rule' } as const;

/** Begins what a step does by itself. All but asking an outside address is done at once. */
export async function beginAutomatic(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  { step, action }: { step: StepRow; action: AutomaticAction },
): Promise<void> {
  const now = listo.clock.now();
  if (action.do === 'send') {
    const { ticketNumber, stepId } = step;
    const sending = { tries: 0, sentAt: null, error: null };
    const answerToken = nanoid(32);
    await listo.db.tables.planSteps.update({ ticketNumber, stepId }, { sending, answerToken }, tx);
    Object.assign(step, { sending, answerToken });
    await listo.db.tables.timers.remove({ ticketNumber, kind: 'stepSend', ref: stepId }, tx);
    await listo.db.tables.timers.insert({ ticketNumber, kind: 'stepSend', ref: stepId, at: now }, tx);
    return;
  }
  if (action.do === 'setField') {
    const answers = { ...ticket.answers, [action.field]: action.value };
    await recordChange({ listo, tx }, ticket, {
      changes: { answers },
      entry: { type: 'changed', ...rule, audience: 'team' },
    });
  }
  await recordStep(
    { listo, tx },
    { ticket, step },
    { changes: { state: 'done', finishedAt: now }, entry: { type: 'stepDone', ...rule } },
  );
}
