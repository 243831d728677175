import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import { recordChange } from '../tickets/record';
import { goOn } from './goOn';
import { recordStep } from './record';

const rule = { actorId: null, via: 'api' } as const;

/** What an outside address answers to a step: into the fields and the record, once. Further answers change nothing. */
export async function takeAnswer(
  listo: Listo,
  token: string,
  { fields, words, failed }: BodyOf<typeof api.plans.answer>,
): Promise<{ ok: true }> {
  const { tables, transaction } = listo.db;
  await transaction(async (tx) => {
    const found = await tables.planSteps.findOne({ answerToken: token }, tx);
    if (!found) throw new ProblemError('notFound');
    const ticket = (await tables.tickets.findOne({ number: found.ticketNumber }, tx, true))!;
    const step = (await tables.planSteps.findOne({ answerToken: token }, tx, true))!;
    if (step.state !== 'active') return;
    const { stepId, ticketNumber } = step;
    await tables.timers.remove({ ticketNumber, kind: 'stepSend', ref: stepId }, tx);
    const now = listo.clock.now();
    if (failed) {
      const wanted = { state: 'failed', reason: words || null } as const;
      await recordStep(listo, tx, ticket, step, wanted, { type: 'stepFailed', ...rule });
    } else {
      if (Object.keys(fields).length > 0)
        await recordChange(
          listo,
          tx,
          ticket,
          { answers: { ...ticket.answers, ...fields } },
          { type: 'changed', ...rule, audience: 'team' },
        );
      const done = { state: 'done', finishedAt: now } as const;
      await recordStep(listo, tx, ticket, step, done, { type: 'stepDone', ...rule, data: { words, fields } });
    }
    await goOn(listo, tx, ticket);
  });
  listo.wake();
  return OK;
}
