import type { JournalRow } from '../journal/model';
import { toEventType } from '../../core/webhooks';
import { factsOfEntry } from '../../core/journal';
import { readNames } from '../people/names';
import type { TicketRecord } from '../tickets/model';
import type { UnitOfWork } from '../unitOfWork';

/** What a receiver is told of an event. Instants are ISO 8601 in UTC. */
export type WebhookBody = { type: string; timestamp: string; data: Record<string, unknown> };

const toIso = (instant: number): string => new Date(instant).toISOString();

/** The facts of a ticket, as other programs are told them. */
const toTicket = (ticket: TicketRecord, names: Map<string, string>): Record<string, unknown> => ({
  ...{ number: ticket.number, title: ticket.title, kind: ticket.kind, serviceId: ticket.serviceId },
  ...{ state: ticket.state, heldFor: ticket.heldFor, priority: ticket.priority },
  ...{ impact: ticket.impact, urgency: ticket.urgency, place: ticket.place, via: ticket.via },
  ...{ teamId: ticket.teamId, groupId: ticket.groupId, createdAt: toIso(ticket.createdAt) },
  requester: { id: ticket.requesterId, name: names.get(ticket.requesterId) ?? null },
  assignee: ticket.assigneeId && { id: ticket.assigneeId, name: names.get(ticket.assigneeId) ?? null },
});

/**
 * What programs are told of some entries of tickets, in their order: who did what, which fields changed from what to what,
 * the words that came with it, and the ticket's facts as they are then.
 */
export async function composeEvents(
  { listo, tx }: UnitOfWork,
  entries: JournalRow[],
  tickets: Map<number, TicketRecord>,
): Promise<{ entry: JournalRow; body: WebhookBody }[]> {
  const people = [...tickets.values()].flatMap(({ requesterId, assigneeId }) => [requesterId, assigneeId]);
  const names = await readNames(listo, [...people, ...entries.map(({ actorId }) => actorId)]);
  const messageIds = entries.flatMap((entry) => factsOfEntry(entry).messageId ?? []);
  const messages = messageIds.length
    ? await listo.db.tables.messages.find({ id: messageIds }, { transaction: tx })
    : [];
  return entries.flatMap((entry) => {
    const ticket = tickets.get(entry.ticketNumber!);
    if (!ticket) return [];
    const { messageId } = factsOfEntry(entry);
    const message = messages.find(({ id }) => id === messageId);
    const { actorId, at, via, changes } = entry;
    const data = {
      ...{ entryId: entry.id, at: toIso(at), via, changes },
      by: actorId === null ? null : { id: actorId, name: names.get(actorId) ?? null },
      ticket: toTicket(ticket, names),
      ...(message && { message: { readBy: message.readBy, text: message.text } }),
    };
    return [{ entry, body: { type: toEventType(entry.type), timestamp: toIso(at), data } }];
  });
}
