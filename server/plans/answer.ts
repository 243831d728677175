import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { checkAnswers, type Answers } from '../../core/forms';
import { hasOwn } from '../../core/records';
import type { Definition } from '../catalogue/model';
import { definitionOf } from '../catalogue/versions';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import { recordChange } from '../tickets/record';
import { goOn } from './goOn';
import { recordStep } from './record';

const rule = { actorId: null, via: 'api' } as const;

const PLAIN = new Set(['string', 'number', 'boolean']);
const LONGEST = 2_000;

/** Values from outside pass the form as answers of people do; what no question asks for is kept where it is short and plain. */
function refuseUnknown({ form }: Definition, fields: Record<string, unknown>): void {
  const asked = form.fields.filter(({ name }) => hasOwn(fields, name));
  const { problems } = checkAnswers(
    { fields: asked.map((field) => ({ ...field, needed: false })) },
    fields as Answers,
  );
  const refused = problems.map(({ field, code }) => ({ field: `fields.${field}`, code }));
  for (const [name, value] of Object.entries(fields)) {
    if (asked.some((field) => field.name === name)) continue;
    const isPlain = PLAIN.has(typeof value) && String(value).length <= LONGEST;
    // Such as the number of an order.
    if (!isPlain || RESERVED.has(name)) refused.push({ field: `fields.${name}`, code: 'notAChoice' });
  }
  if (refused.length > 0) throw new ProblemError('fieldsNotValid', { fields: refused });
}

/** Facts of the ticket that an answer cannot set, as conditions ask for them under the same names. */
const RESERVED = new Set([
  'kind',
  'priority',
  'serviceId',
  'teamId',
  'place',
  'requesterId',
  'cost',
  'impact',
  'urgency',
]);

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
      await recordStep(
        { listo, tx },
        { ticket, step },
        { changes: wanted, entry: { type: 'stepFailed', ...rule } },
      );
    } else {
      const service = await definitionOf(listo, ticket, tx);
      refuseUnknown(service, fields);
      if (Object.keys(fields).length > 0)
        await recordChange({ listo, tx }, ticket, {
          changes: { answers: { ...ticket.answers, ...fields } },
          entry: { type: 'changed', ...rule, audience: 'team' },
        });
      const done = { state: 'done', finishedAt: now } as const;
      await recordStep(
        { listo, tx },
        { ticket, step },
        {
          changes: done,
          entry: {
            type: 'stepDone',
            ...rule,
            data: { words, fields },
          },
        },
      );
    }
    await goOn({ listo, tx }, ticket);
  });
  listo.wake();
  return OK;
}
