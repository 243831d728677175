import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { checkAnswers, withoutFiles, type Answers } from '../../core/forms';
import { createRights, may } from '../../core/rights';
import { isInward, isOpen } from '../../core/tickets';
import { definitionOf } from '../catalogue/versions';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { requireTicket } from './guard';
import { nameAnswers } from './nameAnswers';
import { recordChange } from './record';
import { refuseStale } from './stale';
import type { Changing } from '../unitOfWork';

/** The questions whose answers differ. */
function listChanged(before: Answers, after: Answers): string[] {
  const names = new Set([...Object.keys(before), ...Object.keys(after)]);
  return [...names].filter(
    (name) => JSON.stringify(before[name] ?? null) !== JSON.stringify(after[name] ?? null),
  );
}

/**
 * Changes what was answered, by whoever works on it or asked for it; under the form that it was sent with. Those who
 * agreed to something else are asked anew.
 */
export async function changeAnswers(
  { listo, viewer, actor }: Changing,
  number: number,
  { version, answers: given }: BodyOf<typeof api.tickets.answers>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { ticket, guarded } = await requireTicket({ listo, viewer, tx }, { number, action: 'read' });
    const rights = createRights(viewer);
    const isTeam = may(rights, 'mend', guarded);
    if (!isTeam && !may(rights, 'own', guarded)) throw new ProblemError('forbidden');
    // What a change is decided by stands in its answers, and is written by it alone.
    if (!isOpen(ticket.state) || isInward(ticket.kind)) throw new ProblemError('moveNotAllowed');
    const service = await definitionOf(listo, ticket, tx);
    const { answers: kept, problems } = checkAnswers(withoutFiles(service.form), given);
    if (problems.length > 0)
      throw new ProblemError('fieldsNotValid', {
        fields: problems.map(({ field, words: _, ...rest }) => ({ field: `answers.${field}`, ...rest })),
      });
    const answers = await nameAnswers(listo, service.form, kept);
    await refuseStale({ listo, tx }, ticket, { version, restsOn: { answers } });
    const fields = listChanged(ticket.answers, answers);
    if (fields.length === 0) return { version: ticket.version };
    await recordChange({ listo, tx }, ticket, {
      changes: { answers },
      entry: {
        ...{ type: 'answersChanged', actorId: viewer.id, via: isTeam ? 'desk' : 'portal' },
        data: {
          fields: service.form.fields.filter(({ name }) => fields.includes(name)).map(({ label }) => label),
        },
      },
    });
    await listo.ports.tickets.answersChanged({ listo, tx }, ticket, service);
    return { version: ticket.version };
  });
}
