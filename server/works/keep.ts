import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import type { WorkBody } from '../../contract/works';
import type { LocalText } from '../../core/forms';
import { createRights, isAgent, may } from '../../core/rights';
import { actsOf, checkSubmitted, checkWindow, stageOf, type WorkAct } from '../../core/works';
import { definitionOf } from '../catalogue/versions';
import { findService } from '../catalogue/services';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { createTicket } from '../tickets/create';
import { requireTicket } from '../tickets/guard';
import type { TicketRecord } from '../tickets/model';
import { recordChange } from '../tickets/record';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';
import type { WorkRow } from './model';
import { reckon } from './reckon';

type Fault = { field: string; code: string };
const refuse = (fields: Fault[]): ProblemError => new ProblemError('fieldsNotValid', { fields });

/** What of a change is named in its history, where it is changed. */
const NAMES: Record<string, LocalText> = {
  title: { en: 'what it is', pt: 'o que é' },
  sort: { en: 'how it is agreed', pt: 'como é acordado' },
  fromAt: { en: 'when it begins', pt: 'quando começa' },
  toAt: { en: 'when it ends', pt: 'quando acaba' },
  why: { en: 'why', pt: 'porquê' },
  test: { en: 'how it is tested', pt: 'como se testa' },
  takeBack: { en: 'how it is taken back', pt: 'como se desfaz' },
  thingIds: { en: 'the things', pt: 'as coisas' },
  problemNumber: { en: 'the problem', pt: 'o problema' },
  riskSaid: { en: 'the risk', pt: 'o risco' },
  riskReason: { en: 'why the risk is so', pt: 'porque o risco é esse' },
};

export type Own = { ticket: TicketRecord; work: WorkRow; thingIds: string[] };

/** A change, locked, if one may do this with it where it stands, and it is still as it was read. @throws ProblemError */
export async function requireWork(
  { listo, tx, viewer }: WorkOfViewer,
  number: number,
  { act, version }: { act: WorkAct; version: number },
): Promise<Own> {
  const { ticket, guarded } = await requireTicket({ listo, tx, viewer }, { number, action: 'read' });
  const { works, workThings } = listo.db.tables;
  const work = await works.findOne({ ticketNumber: number }, tx, true);
  if (!work) throw new ProblemError('notFound');
  if (!may(createRights(viewer), 'work', guarded) && ticket.requesterId !== viewer.id)
    throw new ProblemError('forbidden');
  if (work.version !== version) throw new ProblemError('stale');
  if (!actsOf(stageOf(work, ticket), work.sort).includes(act)) throw new ProblemError('moveNotAllowed');
  const things = await workThings.find({ ticketNumber: number }, { transaction: tx });
  return { ticket, work, thingIds: things.map(({ thingId }) => thingId).sort() };
}

async function findMissing({ listo, tx }: UnitOfWork, body: WorkBody): Promise<Fault[]> {
  const { things, tickets } = listo.db.tables;
  const found = await things.find({ id: body.thingIds }, { transaction: tx, attributes: ['id'] });
  const faults: Fault[] = [];
  if (found.length < new Set(body.thingIds).size) faults.push({ field: 'things', code: 'notAChoice' });
  if (
    body.problemNumber !== null &&
    !(await tickets.findOne({ number: body.problemNumber, kind: 'problem' }, tx))
  )
    faults.push({ field: 'problemNumber', code: 'notAChoice' });
  if (body.riskSaid !== null && body.riskReason.trim() === '')
    faults.push({ field: 'riskReason', code: 'missing' });
  return faults;
}

/** The columns of a change as it was written. @throws ProblemError that names every field at fault */
async function toColumns(work: UnitOfWork, body: WorkBody) {
  const faults = [...checkWindow(body), ...(await findMissing(work, body))];
  if (faults.length > 0) throw refuse(faults);
  const { sort, fromAt, toAt, why, test, takeBack, problemNumber, riskSaid, riskReason } = body;
  return { sort, fromAt, toAt, why, test, takeBack, problemNumber, riskSaid, riskReason };
}

async function setThings({ listo, tx }: UnitOfWork, ticketNumber: number, thingIds: string[]): Promise<void> {
  const { workThings, ticketThings } = listo.db.tables;
  await workThings.remove({ ticketNumber }, tx);
  const ids = [...new Set(thingIds)];
  await workThings.insertAll(
    ids.map((thingId) => ({ ticketNumber, thingId })),
    tx,
  );
  // Its things show it among what is about them, as any ticket.
  await ticketThings.remove({ ticketNumber }, tx);
  const at = listo.clock.now();
  await ticketThings.insertAll(
    ids.map((thingId) => ({ ticketNumber, thingId, how: 'about' as const, isAnswer: true, at })),
    tx,
  );
}

/** Begins to write a change: a ticket of its template, which nobody is asked about yet. */
export async function createWork(
  { listo, viewer, actor }: Changing,
  { serviceId, ...body }: BodyOf<typeof api.works.create>,
): Promise<{ number: number }> {
  if (!isAgent(viewer)) throw new ProblemError('forbidden');
  const rules = await findService(listo, serviceId);
  if (rules?.service.kind !== 'change') throw refuse([{ field: 'serviceId', code: 'notAChoice' }]);
  const ticket = {
    ...{ serviceId, title: body.title, answers: {}, alsoToldIds: [], fileIds: [], via: 'desk' as const },
  };
  return createTicket({ listo, viewer, actor }, ticket, {
    ...{ isLenient: true, isDraft: true, isInward: true },
    after: async (tx, number) => {
      const columns = await toColumns({ listo, tx }, body);
      await listo.db.tables.works.insert(
        {
          ...{
            ...columns,
            ticketNumber: number,
            impact: null,
            likelihood: null,
            risk: null,
            submittedAt: null,
          },
          ...{ startedAt: null, endedAt: null, outcome: null, review: '', reviewedAt: null, version: 1 },
        },
        tx,
      );
      await setThings({ listo, tx }, number, body.thingIds);
    },
  });
}

/** What those who agree to a change decide by: if it changes, they are asked anew. */
const AGREED = ['sort', 'fromAt', 'toAt', 'thingIds', 'takeBack', 'test', 'why', 'riskSaid'];

/** Reckons the risk anew, and has it stand where conditions of approvals ask for it. */
async function reckonAgain(
  { listo, tx, viewer }: WorkOfViewer,
  { ticket, work, thingIds }: Own,
): Promise<void> {
  const asked = { number: ticket.number, serviceId: ticket.serviceId, thingIds };
  const { impact, likelihood, risk } = await reckon(
    { listo, viewer },
    { ...asked, fromAt: null, toAt: null },
  );
  const reckoned = { impact, likelihood, risk: work.riskSaid ?? risk };
  Object.assign(work, reckoned);
  await listo.db.tables.works.update({ ticketNumber: ticket.number }, reckoned, tx);
  ticket.answers = { ...ticket.answers, risk: reckoned.risk, sort: work.sort };
  await listo.db.tables.tickets.update({ number: ticket.number }, { answers: ticket.answers }, tx);
}

type Rewritten = { body: WorkBody; version: number };

async function rewrite(
  work: WorkOfViewer,
  number: number,
  { body, version }: Rewritten,
): Promise<{ version: number }> {
  const { listo, tx, viewer } = work;
  const own = await requireWork(work, number, { act: 'change', version });
  const columns = await toColumns({ listo, tx }, body);
  const before: Record<string, unknown> = {
    ...own.work,
    title: own.ticket.title,
    thingIds: own.thingIds.join(),
  };
  const after: Record<string, unknown> = {
    ...columns,
    title: body.title,
    thingIds: [...new Set(body.thingIds)].sort().join(),
  };
  const changed = Object.keys(after).filter((field) => before[field] !== after[field]);
  if (changed.length === 0) return { version };
  await listo.db.tables.works.update({ ticketNumber: number }, { ...columns, version: version + 1 }, tx);
  if (changed.includes('thingIds')) await setThings({ listo, tx }, number, body.thingIds);
  await recordChange({ listo, tx }, own.ticket, {
    changes: { title: body.title },
    entry: {
      ...{ type: 'workChanged', actorId: viewer.id, via: 'desk', audience: 'team' },
      data: { fields: changed.flatMap((field) => NAMES[field] ?? []) },
    },
  });
  const isAgreed = own.work.submittedAt !== null;
  if (isAgreed && changed.some((field) => AGREED.includes(field))) {
    Object.assign(own, { work: { ...own.work, ...columns }, thingIds: body.thingIds });
    requireWhole(own, listo.clock.now());
    await reckonAgain(work, own);
    if (!(await isAgreedBeforehand({ listo, tx }, own)))
      await listo.ports.tickets.answersChanged(
        { listo, tx },
        own.ticket,
        await definitionOf(listo, own.ticket, tx),
      );
  }
  return { version: version + 1 };
}

/** Changes what a change is. Those who agreed to something else are asked anew. */
export function updateWork(
  { listo, viewer, actor }: Changing,
  number: number,
  { version, ...body }: BodyOf<typeof api.works.update>,
): Promise<{ version: number }> {
  return change(listo, actor, (tx) => rewrite({ listo, tx, viewer }, number, { body, version }));
}

/** Puts a change at another time. */
export function moveWork(
  { listo, viewer, actor }: Changing,
  number: number,
  { version, fromAt, toAt }: BodyOf<typeof api.works.move>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const { ticket, work: row, thingIds } = await requireWork(work, number, { act: 'change', version });
    const body = { ...row, title: ticket.title, thingIds, fromAt, toAt };
    return rewrite(work, number, { body, version });
  });
}

/** @throws ProblemError that names what those who agree to it would miss */
function requireWhole({ work, thingIds }: Own, now: number): void {
  const faults = checkSubmitted({ ...work, thingIds }, now);
  if (faults.length > 0) throw refuse(faults);
}

/** Whether nobody has to decide: its template is agreed to beforehand. */
async function isAgreedBeforehand({ listo, tx }: UnitOfWork, { work, ticket }: Own): Promise<boolean> {
  if (work.sort !== 'standard') return false;
  const template = await listo.db.tables.workTemplates.findOne({ serviceId: ticket.serviceId }, tx);
  return template?.isStandard === true;
}

/** Submits a change: its risk is reckoned, and those who agree to such a change at such a risk are asked. */
export function submitWork(
  { listo, viewer, actor }: Changing,
  number: number,
  version: number,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const work = { listo, tx, viewer };
    const own = await requireWork(work, number, { act: 'submit', version });
    const now = listo.clock.now();
    requireWhole(own, now);
    const isStandard = await isAgreedBeforehand({ listo, tx }, own);
    if (own.work.sort === 'standard' && !isStandard) throw refuse([{ field: 'sort', code: 'notStandard' }]);
    await reckonAgain(work, own);
    await listo.db.tables.works.update(
      { ticketNumber: number },
      { submittedAt: now, version: version + 1 },
      tx,
    );
    const service = await definitionOf(listo, own.ticket, tx);
    // What is agreed to beforehand is not decided again.
    const asked = isStandard ? { ...service, approvals: [] } : service;
    const held = { state: 'held', heldFor: 'approval', heldUntil: null, heldReason: null } as const;
    await recordChange({ listo, tx }, own.ticket, {
      changes: listo.ports.tickets.isAgreedFirst(asked, own.ticket) ? held : {},
      entry: { type: 'workSubmitted', actorId: viewer.id, via: 'desk', audience: 'team' },
    });
    const row = await listo.db.tables.services.findOne({ id: own.ticket.serviceId }, tx);
    await listo.ports.tickets.opened({ listo, tx }, own.ticket, { ...row!, ...asked });
    return { version: version + 1 };
  });
}
