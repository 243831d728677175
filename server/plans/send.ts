import { callOut, NotAllowed } from '../http/outgoing';
import type { Listo } from '../listo';
import type { TimerHandler } from '../timers/runner';
import type { StepRow } from './model';
import { recordStep } from './record';

/** An address that does not answer is asked again after a minute, then after twice as long each time. */
const FIRST_WAIT_MS = 60_000;
const MOST_TRIES = 6;

type Sent = { ticketNumber: number; stepId: string; answerToken: string; address: string; body: object };

/** Sends, and writes down how that went. Answers come by themselves, later. */
async function deliver(
  listo: Listo,
  { ticketNumber, stepId, answerToken, address, body }: Sent,
): Promise<void> {
  const said = JSON.stringify({ ...body, answerTo: `${listo.address}/api/v1/step-answers/${answerToken}` });
  let error: string | null = null;
  let isForGood = false;
  try {
    const { status } = await callOut(listo, {
      ...{ address, body: said, id: answerToken },
      of: { kind: 'step', ref: `${ticketNumber}/${stepId}`.slice(0, 60) },
    });
    if (status < 200 || status >= 300) error = `${status}`;
  } catch (failure) {
    // What is behind an address is not told to those who write plans.
    isForGood = failure instanceof NotAllowed;
    error = isForGood ? 'notAllowed' : 'notReached';
    listo.log.info({ err: failure, ticketNumber, stepId }, 'an outside address was not reached');
  }
  const { tables, transaction } = listo.db;
  await transaction(async (tx) => {
    const step = await tables.planSteps.findOne({ ticketNumber, stepId }, tx, true);
    // Begun anew meanwhile: that is another sending.
    if (!step?.sending || step.answerToken !== answerToken) return;
    const sentAt = error === null ? listo.clock.now() : step.sending.sentAt;
    await tables.planSteps.update(
      { ticketNumber, stepId },
      { sending: { ...step.sending, sentAt, error } },
      tx,
    );
    if (error === null) await tables.timers.remove({ ticketNumber, kind: 'stepSend', ref: stepId }, tx);
    // Asking again would not help: the next turn says that it failed.
    if (isForGood)
      await tables.planSteps.update(
        { ticketNumber, stepId },
        { sending: { ...step.sending, tries: MOST_TRIES, sentAt, error } },
        tx,
      );
  });
}

/**
 * Asks the outside addresses of steps. The next try is set before the first is made, so that one is made also where
 * this process dies; the address knows by the key that it is the same.
 */
export const sendSteps: TimerHandler = async (listo, due, tx) => {
  const { tables } = listo.db;
  for (const { ticketNumber, ref: stepId } of due) {
    const step = await tables.planSteps.findOne({ ticketNumber, stepId }, tx, true);
    const ticket = await tables.tickets.findOne({ number: ticketNumber }, tx);
    if (!ticket || step?.state !== 'active' || !step.sending || step.sending.sentAt !== null) continue;
    const tries = step.sending.tries + 1;
    if (tries > MOST_TRIES) {
      const failed = { state: 'failed', reason: step.sending.error } as const;
      await recordStep(
        { listo, tx },
        { ticket, step },
        {
          changes: failed,
          entry: {
            type: 'stepFailed',
            actorId: null,
            via: 'rule',
          },
        },
      );
      continue;
    }
    await tables.planSteps.update({ ticketNumber, stepId }, { sending: { ...step.sending, tries } }, tx);
    const at = listo.clock.now() + FIRST_WAIT_MS * 2 ** (tries - 1);
    await tables.timers.insert({ ticketNumber, kind: 'stepSend', ref: stepId, at }, tx);
    const { number, title, requesterId, serviceId, answers } = ticket;
    const sent = toSent(step, { number, title, requesterId, serviceId, answers });
    // Only what is committed is asked for outside.
    if (sent)
      tx.afterCommit(() => void deliver(listo, sent).catch((err: unknown) => listo.log.error({ err })));
  }
};

function toSent({ ticketNumber, stepId, answerToken, definition }: StepRow, ticket: object): Sent | null {
  if (definition.kind !== 'automatic' || definition.action.do !== 'send' || answerToken === null) return null;
  const { address } = definition.action;
  return { ticketNumber, stepId, answerToken, address, body: { ticket, step: stepId } };
}
