import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { putInPlace } from '../../core/plans';
import { createRights, may, mayRank } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { append } from '../journal/append';
import { findGuarded } from '../tickets/guard';
import { answerAsTeam } from '../tickets/messages';
import { goOn } from './goOn';
import type { StepRow } from './model';
import { keyOf, listRanked } from './ranking';
import { recordStep } from './record';
import type { Changing, UnitOfWork } from '../unitOfWork';

/** Puts one in its place; the others keep their order. @returns the place and among how many, where it has moved */
async function putStep(
  { listo, tx }: UnitOfWork,
  step: StepRow,
  wanted: number,
): Promise<{ place: number; count: number } | null> {
  const all = await listRanked(listo, [step.teamId!], tx);
  const key = keyOf(step);
  const order = putInPlace(all, key, wanted);
  const place = order.indexOf(key) + 1;
  if (all.findIndex((each) => each.key === key) + 1 === place) return null;
  for (const { ticketNumber, stepId, key: each } of all)
    await listo.db.tables.planSteps.update({ ticketNumber, stepId }, { place: order.indexOf(each) + 1 }, tx);
  return { place, count: order.length };
}

/** A lead puts a request in its place among the others, says a word to who asked, or lets it go ahead. */
export async function rankRequest(
  { listo, viewer, actor }: Changing,
  teamId: string,
  { number, stepId, version, place, words, goesAhead }: BodyOf<typeof api.plans.rank>,
): Promise<{ version: number }> {
  if (!mayRank(viewer, teamId)) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const { tables } = listo.db;
    // One after the other, so that two leads do not give one place twice.
    await tables.teams.findOne({ id: teamId }, tx, true);
    const found = await findGuarded(listo, number, tx);
    if (!found || !may(createRights(viewer), 'read', found.guarded)) throw new ProblemError('notFound');
    const { ticket } = found;
    const step = await tables.planSteps.findOne({ ticketNumber: number, stepId, teamId }, tx, true);
    if (step?.definition.kind !== 'ranking') throw new ProblemError('notFound');
    if (step.state !== 'active') throw new ProblemError('moveNotAllowed');
    if (step.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'state', theirs: step.state, yours: goesAhead ? 'done' : 'ranked', by: null }],
      });
    const by = { actorId: viewer.id, via: 'desk' } as const;
    const put = place === undefined ? null : await putStep({ listo, tx }, step, place);
    if (put)
      await append(
        { listo, tx },
        {
          ...{ ...by, type: 'ranked', ticketNumber: number, audience: 'requester' },
          data: { ...put, stepId, name: step.definition.name },
        },
      );
    const text = words.trim();
    if (text !== '')
      await answerAsTeam({ listo, tx }, ticket, {
        answer: { authorId: viewer.id, via: 'desk', text },
        how: by,
      });
    if (goesAhead) {
      const done = { state: 'done', finishedAt: listo.clock.now() } as const;
      await recordStep(
        { listo, tx },
        { ticket, step },
        { changes: done, entry: { type: 'stepDone', ...by } },
      );
      await goOn({ listo, tx }, ticket);
    }
    return { version: step.version };
  });
}
