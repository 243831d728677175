import type { Listo } from '../listo';
import type { TimerHandler } from '../timers/runner';
import type { StepRow } from './model';
import { recordStep } from './record';

/** An address that does not answer is asked again after a minute, then after twice as long each time. */
const FIRST_WAIT_MS = 60_000;
const MOST_TRIES = 6;
const PATIENCE_MS = 10_000;

type Sent = { ticketNumber: number; stepId: string; answerToken: string; address: string; body: object };

/** Sends, and writes down how that went. Answers come by themselves, later. */
async function deliver(
  listo: Listo,
  { ticketNumber, stepId, answerToken, address, body }: Sent,
): Promise<void> {
  let error: string | null = null;
  try {
    const response = await fetch(new URL(address, listo.address), {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Idempotency-Key': answerToken },
      body: JSON.stringify({ ...body, answerTo: `${listo.address}/api/v1/step-answers/${answerToken}` }),
      signal: AbortSignal.timeout(PATIENCE_MS),
    });
    if (!response.ok) error = `${response.status}`;
  } catch (failure) {
    error = failure instanceof Error ? failure.message : String(failure);
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
      await recordStep(listo, tx, ticket, step, failed, { type: 'stepFailed', actorId: null, via: 'rule' });
      continue;
    }
    await tables.planSteps.update({ ticketNumber, stepId }, { sending: { ...step.sending, tries } }, tx);
    const at = listo.clock.now() + FIRST_WAIT_MS * 2 ** (tries - 1);
    await tables.timers.insert({ ticketNumber, kind: 'stepSend', ref: stepId, at }, tx);
    const { number, title, requesterId, serviceId, answers } = ticket;
    const sent = toSent(step, { number, title, requesterId, serviceId, answers });
    if (sent) setImmediate(() => void deliver(listo, sent).catch((err: unknown) => listo.log.error({ err })));
  }
};

function toSent({ ticketNumber, stepId, answerToken, definition }: StepRow, ticket: object): Sent | null {
  if (definition.kind !== 'automatic' || definition.action.do !== 'send' || answerToken === null) return null;
  const { address } = definition.action;
  return { ticketNumber, stepId, answerToken, address, body: { ticket, step: stepId } };
}
