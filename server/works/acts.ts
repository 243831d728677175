import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { adviseTemplate } from '../../core/works';
import { canMove, isOpen } from '../../core/tickets';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import { makeMove } from '../tickets/move';
import { recordChange } from '../tickets/record';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';
import { requireWork, type Own } from './keep';
import { readPast } from './reckon';

/** A thing that is retired meanwhile is not worked on: what was agreed to is no longer so. */
async function requireThings({ listo, tx }: UnitOfWork, thingIds: string[]): Promise<void> {
  const things = await listo.db.tables.things.find(
    { id: thingIds },
    { transaction: tx, attributes: ['id', 'state'] },
  );
  if (things.some(({ state }) => state === 'retired'))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'things', code: 'retired' }] });
}

/** Begins the work. Whoever begins it has it. */
export function startWork(
  { listo, viewer, actor }: Changing,
  number: number,
  version: number,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { ticket, thingIds } = await requireWork({ listo, tx, viewer }, number, { act: 'start', version });
    await requireThings({ listo, tx }, thingIds);
    const startedAt = listo.clock.now();
    await listo.db.tables.works.update({ ticketNumber: number }, { startedAt, version: version + 1 }, tx);
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: { type: 'workBegan', actorId: viewer.id, via: 'desk', audience: 'team' },
    });
    const isOfTeam = viewer.teams.some(({ teamId }) => teamId === ticket.teamId);
    if (isOfTeam && ticket.state === 'received' && ticket.assigneeId !== viewer.id)
      await makeMove({ listo, tx }, ticket, {
        name: 'take',
        by: 'agent',
        actorId: viewer.id,
        via: 'desk',
        input: {},
      });
    return { version: version + 1 };
  });
}

/** A template that is agreed to beforehand loses that with the first change that goes wrong. */
async function judgeTemplate(
  { listo, tx }: WorkOfViewer,
  { ticket }: Own,
  outcome: 'done' | 'failed' | 'takenBack',
) {
  const { workTemplates } = listo.db.tables;
  const template = await workTemplates.findOne({ serviceId: ticket.serviceId }, tx, true);
  if (!template?.isStandard) return;
  const { outcomes } = await readPast(listo, ticket.serviceId);
  if (adviseTemplate([...outcomes, outcome], true) !== 'lose') return;
  const { serviceId, version } = template;
  await workTemplates.update({ serviceId }, { isStandard: false, version: version + 1 }, tx);
  const data = { serviceId, isStandard: false };
  await appendSetting({ listo, tx }, { by: null, type: 'workTemplateSet', data });
}

/** Says how the work ended. Its ticket is done with it, unless it is still to be agreed to, as an emergency may be. */
export function endWork(
  { listo, viewer, actor }: Changing,
  number: number,
  { version, outcome, words }: BodyOf<typeof api.works.end>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const own = await requireWork(work, number, { act: 'end', version });
    const endedAt = listo.clock.now();
    await listo.db.tables.works.update(
      { ticketNumber: number },
      { endedAt, outcome, version: version + 1 },
      tx,
    );
    await recordChange({ listo, tx }, own.ticket, {
      changes: {},
      entry: { type: 'workEnded', actorId: viewer.id, via: 'desk', audience: 'team', data: { outcome } },
    });
    await judgeTemplate(work, own, outcome);
    const { ticket } = own;
    const by = { by: 'agent', actorId: viewer.id, via: 'desk' } as const;
    if (isOpen(ticket.state) && canMove('finish', ticket, 'agent'))
      await makeMove({ listo, tx }, ticket, { ...by, name: 'finish', input: { solution: words } });
    return { version: version + 1 };
  });
}

/** Keeps what was learned of the work. */
export function reviewWork(
  { listo, viewer, actor }: Changing,
  number: number,
  { version, review }: BodyOf<typeof api.works.review>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const { ticket } = await requireWork({ listo, tx, viewer }, number, { act: 'review', version });
    const reviewedAt = listo.clock.now();
    await listo.db.tables.works.update(
      { ticketNumber: number },
      { review, reviewedAt, version: version + 1 },
      tx,
    );
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: { type: 'workReviewed', actorId: viewer.id, via: 'desk', audience: 'team' },
    });
    return { version: version + 1 };
  });
}
