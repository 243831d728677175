import type { EntryFrame } from '../../core/journal';
import { nanoid } from 'nanoid';
import type * as z from 'zod';
import type { messageBodySchema } from '../../contract/tickets';
import { isWebAddress } from '../../core/forms';
import { createRights, may } from '../../core/rights';
import { isOpen, type Door } from '../../core/tickets';
import { isTooNested } from '../../core/words';
import { keepFiles } from '../files/keep';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { findMentioned } from './mentioned';
import { requireTicket } from './guard';
import type { MessageRow, TicketRecord } from './model';
import { recordChange } from './record';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';

type Whole = z.infer<typeof messageBodySchema>;
type Words = Omit<Whole, 'format' | 'isPublic'> & Partial<Pick<Whole, 'format' | 'isPublic'>>;

/** What most messages have alike. */
type Usual = 'links' | 'format' | 'isPublic';

/** Stores words on a ticket's thread. */
export async function insertMessage(
  { listo, tx }: UnitOfWork,
  message: Omit<MessageRow, 'id' | 'at' | Usual> & Partial<Pick<MessageRow, Usual>>,
): Promise<string> {
  const id = nanoid();
  await listo.db.tables.messages.insert(
    { links: [], format: 'plain', isPublic: false, ...message, id, at: listo.clock.now() },
    tx,
  );
  return id;
}

/** What words do to the ticket: the team's first answer is noted, the requester's answer ends being held for them. */
function effectOf(ticket: TicketRecord, isByTeam: boolean, now: number): Partial<TicketRecord> {
  if (isByTeam) return { answered: true, takenUp: true, waitsSince: null };
  const waitsSince = isOpen(ticket.state) ? (ticket.waitsSince ?? now) : null;
  if (ticket.state !== 'held' || ticket.heldFor !== 'requester') return { waitsSince };
  const state = ticket.assigneeId === null ? 'received' : 'inWork';
  return { state, heldFor: null, heldUntil: null, heldReason: null, waitsSince };
}

type TeamAnswer = Pick<MessageRow, 'authorId' | 'via' | 'text'> &
  Partial<Pick<MessageRow, 'links' | 'format'>>;

/** Puts an answer of the team on a locked ticket's thread, by a right that is not one on the ticket. */
export async function answerAsTeam(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  {
    answer,
    how: { actorId, via, from },
  }: { answer: TeamAnswer; how: Pick<EntryFrame, 'actorId' | 'via'> & { from?: number | null } },
): Promise<void> {
  const messageId = await insertMessage(
    { listo, tx },
    {
      ...{ ...answer, ticketNumber: ticket.number, readBy: 'requester', isByTeam: true },
    },
  );
  await recordChange({ listo, tx }, ticket, {
    changes: effectOf(ticket, true, listo.clock.now()),
    entry: {
      ...{ type: 'answered', actorId, via, audience: 'requester' },
      data: { messageId, ...(from !== undefined && { from }) },
    },
  });
}

/** @throws ProblemError where a link is none, or words cannot be shown as they stand */
function requireFit({ text, format, links }: Pick<Words, 'text' | 'format' | 'links'>): void {
  if (!links.every(({ url }) => isWebAddress(url)))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'links', code: 'notALink' }] });
  if (format === 'rich' && isTooNested(text))
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'text', code: 'tooNested' }] });
}

/** Sends words in a transaction that is under way. */
export async function writeWithin(
  { listo, tx, viewer }: WorkOfViewer,
  number: number,
  {
    text,
    format = 'plain',
    readBy,
    links,
    fileIds,
    isPublic = false,
    by,
    saidAt,
  }: Words & { by?: Door; saidAt?: number },
): Promise<{ messageId: string }> {
  requireFit({ text, format, links });
  const { ticket, guarded } = await requireTicket({ listo, viewer, tx }, { number, action: 'read' });
  const rights = createRights(viewer);
  // Someone of the team who is also the requester writes as the requester on their own ticket.
  const isByTeam = readBy === 'team' || (may(rights, 'answer', guarded) && ticket.requesterId !== viewer.id);
  const action = readBy === 'team' ? 'note' : isByTeam ? 'answer' : 'write';
  if (!may(rights, action, guarded)) throw new ProblemError('forbidden');
  const via = by ?? (action === 'write' ? 'portal' : 'desk');
  const messageId = await insertMessage(
    { listo, tx },
    {
      ticketNumber: number,
      authorId: viewer.id,
      via,
      readBy,
      isByTeam,
      text,
      format,
      links,
      isPublic: isPublic && readBy === 'requester' && !ticket.isConfidential,
    },
  );
  const mentioned =
    format === 'rich' ? await findMentioned({ listo, tx }, { ticket, guarded }, { text, readBy }) : [];
  if (fileIds.length > 0)
    await keepFiles({ listo, tx }, { personId: viewer.id, fileIds }, { ticketNumber: number, messageId });
  if (!isByTeam) await listo.ports.tickets.answered({ listo, tx }, ticket);
  await recordChange({ listo, tx }, ticket, {
    changes:
      readBy === 'team'
        ? { ...(may(rights, 'work', guarded) && ticket.requesterId !== viewer.id && { takenUp: true }) }
        : effectOf(ticket, isByTeam, listo.clock.now()),
    entry: {
      type: readBy === 'team' ? 'noted' : 'answered',
      actorId: viewer.id,
      via,
      audience: readBy,
      data: {
        messageId,
        ...(mentioned.length > 0 && { mentioned }),
        ...(saidAt !== undefined && { saidAt }),
      },
    },
  });
  return { messageId };
}

/** Sends words to the requester or keeps them in the team. */
export async function write(
  { listo, viewer, actor }: Changing,
  number: number,
  { words, how: { by } = {} }: { words: Words; how?: { by?: Door } },
): Promise<{ messageId: string }> {
  return change(listo, actor, (tx) =>
    writeWithin({ listo, tx, viewer }, number, { ...words, ...(by && { by }) }),
  );
}
