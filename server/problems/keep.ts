import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { createRights, isAgent, may } from '../../core/rights';
import { checkStage, type ProblemTie } from '../../core/problems';
import { canMove, isOpen } from '../../core/tickets';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { createArticle } from '../knowledge/keep';
import { createTicket } from '../tickets/create';
import { requireTicket } from '../tickets/guard';
import type { TicketRecord } from '../tickets/model';
import { makeMove } from '../tickets/move';
import { recordChange } from '../tickets/record';
import type { Changing, WorkOfViewer } from '../unitOfWork';
import { readCauseKinds } from './causeKinds';
import type { ProblemRow } from './model';

type Fault = { field: string; code: string };
const refuse = (fields: Fault[]): ProblemError => new ProblemError('fieldsNotValid', { fields });

/** A problem, locked, if one may change it. @throws ProblemError */
async function requireProblem(
  { listo, tx, viewer }: WorkOfViewer,
  number: number,
): Promise<{ ticket: TicketRecord; problem: ProblemRow }> {
  const { ticket, guarded } = await requireTicket({ listo, tx, viewer }, { number, action: 'readNotes' });
  const problem = await listo.db.tables.problems.findOne({ ticketNumber: number }, tx, true);
  if (!problem) throw new ProblemError('notFound');
  if (!may(createRights(viewer), 'work', guarded) && ticket.requesterId !== viewer.id)
    throw new ProblemError('forbidden');
  return { ticket, problem };
}

/** Says what an incident is to a problem. @throws ProblemError where it is none, or in confidence elsewhere */
async function tieOne(
  work: WorkOfViewer,
  problem: TicketRecord,
  { number, tie, reason }: { number: number; tie: ProblemTie; reason: string },
): Promise<void> {
  const { listo, tx, viewer } = work;
  const { ticket } = await requireTicket({ listo, tx, viewer }, { number, action: 'note' });
  if (ticket.kind !== 'incident') throw refuse([{ field: 'numbers', code: 'notAnIncident' }]);
  // What is in confidence stays with its team: the problem names its incidents to whoever reads it.
  if (ticket.isConfidential && ticket.teamId !== problem.teamId)
    throw refuse([{ field: 'numbers', code: 'confidential' }]);
  const { problemIncidents } = listo.db.tables;
  const key = { problemNumber: problem.number, incidentNumber: number };
  const before = await problemIncidents.findOne(key, tx);
  if (before?.tie === tie && before.reason === reason) return;
  await problemIncidents.insertAll([{ ...key, tie, reason, at: before?.at ?? listo.clock.now() }], tx, {
    updates: ['tie', 'reason'],
  });
  const by = { type: 'problemTied', actorId: viewer.id, via: 'desk', audience: 'team' } as const;
  const said = { tie, ...(reason !== '' && { reason }) };
  await recordChange({ listo, tx }, ticket, {
    changes: {},
    entry: { ...by, data: { ...said, other: problem.number } },
  });
  await recordChange({ listo, tx }, problem, {
    changes: {},
    entry: { ...by, data: { ...said, other: number } },
  });
}

/** Opens a problem: a ticket of the team that looks into it, with the incidents that may come of it. */
export async function createProblem(
  { listo, viewer, actor }: Changing,
  { title, teamId, numbers, thingId, cause }: BodyOf<typeof api.problems.create>,
): Promise<{ number: number }> {
  if (!isAgent(viewer)) throw new ProblemError('forbidden');
  const services = await listo.db.tables.services.find(
    { kind: 'problem', isOn: true },
    { order: ['position', 'id'] },
  );
  const service = services.find((each) => each.teamId === teamId) ?? services[0];
  if (!service) throw new ProblemError('noProblemService');
  const ticket = {
    ...{ serviceId: service.id, title, answers: {}, alsoToldIds: [], fileIds: [], via: 'desk' as const },
  };
  return createTicket({ listo, viewer, actor }, ticket, {
    ...{ isLenient: true, isInward: true },
    after: async (tx, number) => {
      const { tables } = listo.db;
      const work = { listo, tx, viewer };
      await tables.problems.insert(
        {
          ...{ ticketNumber: number, stage: 'suspected', causeKindId: null, cause, workaround: '' },
          ...{ articleId: null, solvedAt: null, backAt: null, version: 1 },
        },
        tx,
      );
      const made = (await tables.tickets.findOne({ number }, tx, true))!;
      // Whoever opens it for another team gives it there at once.
      if (teamId !== made.teamId) {
        const input = { teamId, groupId: null, assigneeId: null };
        await makeMove(work, made, { name: 'give', by: 'system', actorId: viewer.id, via: 'desk', input });
      }
      if (thingId !== null) {
        if (!(await tables.things.findOne({ id: thingId }, tx)))
          throw refuse([{ field: 'thingId', code: 'notAChoice' }]);
        const tie = {
          ticketNumber: number,
          thingId,
          how: 'cause' as const,
          isAnswer: false,
          at: listo.clock.now(),
        };
        await tables.ticketThings.insert(tie, tx);
      }
      for (const incident of [...new Set(numbers)])
        await tieOne(work, made, { number: incident, tie: 'suspected', reason: '' });
    },
  });
}

/** Says what incidents are to a problem. */
export function tieIncidents(
  { listo, viewer, actor }: Changing,
  number: number,
  { numbers, tie, reason }: BodyOf<typeof api.problems.tie>,
): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const { ticket } = await requireTicket(work, { number, action: 'note' });
    if (!(await listo.db.tables.problems.findOne({ ticketNumber: number }, tx)))
      throw new ProblemError('notFound');
    // It is taken off with a reason, so that nobody ties it once more.
    if (tie === 'dropped' && reason.trim() === '') throw refuse([{ field: 'reason', code: 'missing' }]);
    for (const incident of [...new Set(numbers)])
      await tieOne(work, ticket, { number: incident, tie, reason });
    return OK;
  });
}

/** Those of its incidents hear that the cause is mended, and its ticket is done. */
async function tellSolved(
  { listo, tx, viewer }: WorkOfViewer,
  { ticket, problem }: { ticket: TicketRecord; problem: ProblemRow },
): Promise<void> {
  const { tables } = listo.db;
  const ties = await tables.problemIncidents.find(
    { problemNumber: ticket.number, tie: ['suspected', 'confirmed'] },
    { transaction: tx, order: ['incidentNumber'] },
  );
  for (const { incidentNumber } of ties) {
    const incident = await tables.tickets.findOne({ number: incidentNumber }, tx, true);
    if (!incident || incident.state === 'withdrawn') continue;
    const words = { en: problem.cause, pt: problem.cause };
    await recordChange({ listo, tx }, incident, {
      changes: {},
      entry: {
        ...{ type: 'problemSolved', actorId: viewer.id, via: 'desk', audience: 'requester' },
        data: { other: ticket.number, words },
      },
    });
  }
  if (isOpen(ticket.state) && canMove('finish', ticket, 'agent'))
    await makeMove({ listo, tx }, ticket, {
      ...{ name: 'finish', by: 'agent', actorId: viewer.id, via: 'desk', input: { solution: problem.cause } },
    });
}

/** Says how far one is with a problem, and what is known of it. */
export function updateProblem(
  { listo, viewer, actor }: Changing,
  number: number,
  { version, ...body }: BodyOf<typeof api.problems.update>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const { ticket, problem } = await requireProblem(work, number);
    if (problem.version !== version) throw new ProblemError('stale');
    const faults: Fault[] = checkStage(body.stage, body);
    const kinds = await readCauseKinds({ listo, tx });
    if (body.causeKindId !== null && !kinds.some(({ id }) => id === body.causeKindId))
      faults.push({ field: 'causeKindId', code: 'notAChoice' });
    if (faults.length > 0) throw refuse(faults);
    const isSolved = body.stage === 'solved';
    const solvedAt = isSolved ? (problem.solvedAt ?? listo.clock.now()) : null;
    const after = { ...body, solvedAt, backAt: isSolved ? null : problem.backAt, version: version + 1 };
    await listo.db.tables.problems.update({ ticketNumber: number }, after, tx);
    if (body.stage !== problem.stage)
      await recordChange({ listo, tx }, ticket, {
        changes: {},
        entry: {
          type: 'problemMoved',
          actorId: viewer.id,
          via: 'desk',
          audience: 'team',
          data: { stage: body.stage },
        },
      });
    if (isSolved && problem.stage !== 'solved')
      await tellSolved(work, { ticket, problem: { ...problem, ...after } });
    return { version: version + 1 };
  });
}

/** Begins an article from the way around a problem; its authors go on from there. */
export async function beginArticle(
  { listo, viewer, actor }: Changing,
  number: number,
): Promise<{ id: string }> {
  const { ticket, problem } = await listo.db.transaction((tx) =>
    requireProblem({ listo, tx, viewer }, number),
  );
  if (problem.workaround.trim() === '') throw refuse([{ field: 'workaround', code: 'missing' }]);
  if (problem.articleId !== null) return { id: problem.articleId };
  const isPt = viewer.language === 'pt';
  const only = (text: string) => ({ en: isPt ? '' : text, pt: isPt ? text : '' });
  const [what, meanwhile] = isPt
    ? ['O que acontece', 'O que fazer entretanto']
    : ['What happens', 'What to do meanwhile'];
  const { id } = await createArticle(
    { listo, viewer, actor },
    {
      ...{
        teamId: ticket.teamId,
        ownerId: viewer.id,
        place: 'desk',
        labels: [],
        isOpen: false,
        audience: [],
      },
      ...{ reviewAt: null, title: only(ticket.title), otherWords: only(''), fromTicket: number },
      body: only(`## ${what}\n\n${ticket.title}\n\n## ${meanwhile}\n\n${problem.workaround}`),
    },
  );
  await listo.db.tables.problems.update({ ticketNumber: number }, { articleId: id });
  return { id };
}
