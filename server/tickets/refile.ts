import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { carryAnswers, sayAnswer, type FormDefinition } from '../../core/forms';
import { isInward, isOpen } from '../../core/tickets';
import { findService } from '../catalogue/services';
import { definitionOf } from '../catalogue/versions';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from './guard';
import { insertMessage } from './messages';
import type { TicketRecord } from './model';
import { recordChange } from './record';
import { refuseStale } from './stale';
import { getOwn } from '../../core/records';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';

const refused = (field: string, code: string): ProblemError =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

/** Someone was asked to agree to it, or several teams fulfil it, for whom and what it was: that stays so. */
async function isBound({ listo, tx }: UnitOfWork, { number }: TicketRecord): Promise<boolean> {
  const { tables } = listo.db;
  const plan = await tables.plans.findOne({ ticketNumber: number }, tx);
  const [approval] = await tables.approvals.find({ ticketNumber: number }, { transaction: tx, limit: 1 });
  return plan !== null || approval !== undefined;
}

async function lockOpen({ listo, tx }: UnitOfWork, viewer: SignedIn, number: number) {
  const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'work' });
  if (!isOpen(ticket.state)) throw new ProblemError('moveNotAllowed');
  return ticket;
}

/**
 * Files a ticket under another service. What both forms ask for stays answered, the rest of what was said becomes a note
 * of the team; its promises are those of the new service from now on.
 */
export async function changeService(
  { listo, viewer, actor }: Changing,
  number: number,
  { version, serviceId }: BodyOf<typeof api.tickets.changeService>,
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const ticket = await lockOpen({ listo, tx }, viewer, number);
    await refuseStale({ listo, tx }, ticket, { version, restsOn: { serviceId } });
    if (ticket.serviceId === serviceId) return { version: ticket.version };
    const rules = await findService(listo, serviceId);
    if (!rules) throw refused('serviceId', 'notAChoice');
    const { service, isConfidential } = rules;
    // A problem or a change has facts of its own beside the ticket.
    if (isInward(service.kind) || isInward(ticket.kind)) throw refused('serviceId', 'notAChoice');
    if (isConfidential !== ticket.isConfidential) throw refused('serviceId', 'otherConfidence');
    const before = await definitionOf(listo, ticket, tx);
    const { carried, left } = carryAnswers(before.form, service.form, ticket.answers);
    const isAgreedFirst = listo.ports.tickets.isAgreedFirst(service, { ...ticket, answers: carried });
    if (service.plan || isAgreedFirst || (await isBound({ listo, tx }, ticket)))
      throw refused('serviceId', 'needsAgreement');
    if (left.length > 0) await noteWhatIsLeft({ listo, tx, viewer }, ticket, { form: before.form, left });
    await recordChange({ listo, tx }, ticket, {
      changes: { serviceId, serviceVersion: service.version, kind: service.kind, answers: carried },
      entry: {
        ...{ type: 'refiled', actorId: viewer.id, via: 'desk' },
        data: { name: service.title, formerName: before.title },
      },
    });
    await listo.ports.tickets.refiled({ listo, tx }, ticket, service);
    return { version: ticket.version };
  });
}

/** What the new form does not ask for is not lost. */
async function noteWhatIsLeft(
  { listo, tx, viewer }: WorkOfViewer,
  ticket: TicketRecord,
  { form, left }: { form: FormDefinition; left: string[] },
): Promise<void> {
  const lines = form.fields.flatMap((field) => {
    const said = left.includes(field.name)
      ? sayAnswer(field, getOwn(ticket.answers, field.name) ?? null, viewer.language)
      : null;
    return said === null ? [] : [`${field.label[viewer.language]} ${said}`];
  });
  const messageId = await insertMessage(
    { listo, tx },
    {
      ...{ ticketNumber: ticket.number, authorId: viewer.id, via: 'desk', readBy: 'team', isByTeam: true },
      text: lines.join('\n'),
    },
  );
  const noted = { type: 'noted', actorId: viewer.id, via: 'desk', audience: 'team' } as const;
  await recordChange({ listo, tx }, ticket, { changes: {}, entry: { ...noted, data: { messageId } } });
}

/**
 * Puts someone else in the place of the one who asks: they read the thread and are told from now on. Who wrote it
 * themselves, for another, goes on reading of it.
 */
export async function changeRequester(
  { listo, viewer, actor }: Changing,
  number: number,
  { version, requesterId }: BodyOf<typeof api.tickets.changeRequester>,
): Promise<{ version: number }> {
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const ticket = await lockOpen({ listo, tx }, viewer, number);
    await refuseStale({ listo, tx }, ticket, { version, restsOn: { requesterId } });
    const formerId = ticket.requesterId;
    if (formerId === requesterId) return { version: ticket.version };
    if (!(await tables.people.findOne({ id: requesterId, leftAt: null }, tx)))
      throw refused('requesterId', 'notAChoice');
    if (await isBound({ listo, tx }, ticket)) throw refused('requesterId', 'agreedForThem');
    const isWriter = ticket.raisedById === null;
    await tables.followers.remove({ ticketNumber: number, personId: requesterId, role: 'alsoTold' }, tx);
    if (isWriter)
      await tables.followers.insert({ ticketNumber: number, personId: formerId, role: 'alsoTold' }, tx);
    await recordChange({ listo, tx }, ticket, {
      changes: { requesterId, ...(isWriter && { raisedById: formerId }) },
      entry: {
        ...{ type: 'requesterChanged', actorId: viewer.id, via: 'desk' },
        data: { personId: requesterId, fromId: formerId },
      },
    });
    return { version: ticket.version };
  });
}
