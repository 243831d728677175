import type { Transaction } from 'sequelize';
import { toTitle } from '../../core/chat';
import { findLastResort } from '../catalogue/lastResort';
import { ProblemError } from '../http/problems';
import { change } from '../http/change';
import { createTicket } from '../tickets/create';
import { requireTicket } from '../tickets/guard';
import { insertMessage } from '../tickets/messages';
import { recordChange } from '../tickets/record';
import type { By } from './deeds';
import { listOpenFileIds } from './files';
import { requireConversation } from './guard';
import { recordEntry } from './record';
import { readTranscript } from './transcript';

const WORDS_LIMIT = 19_000;
const ANSWER_LIMIT = 5_000;

/** Puts what was said on the ticket's thread, as the requester may read it, and notes it in the conversation. */
async function attach(
  by: By,
  tx: Transaction,
  { number, isMade }: { number: number; isMade: boolean },
): Promise<void> {
  const { listo, viewer, id } = by;
  const { conversation } = await requireConversation({ listo, viewer }, id, { tx, as: 'agent' });
  const ticket = (await listo.db.tables.tickets.findOne({ number }, tx, true))!;
  const text = (await readTranscript(listo, conversation, 'en')).slice(0, WORDS_LIMIT);
  const said = {
    ticketNumber: number,
    authorId: conversation.personId,
    via: 'liveChat',
    readBy: 'requester',
  } as const;
  const messageId = await insertMessage({ listo, tx }, { ...said, isByTeam: false, text });
  const recorded = {
    type: 'conversation',
    actorId: viewer.id,
    via: 'liveChat',
    data: { messageId },
  } as const;
  await recordChange({ listo, tx }, ticket, { changes: {}, entry: recorded });
  // What agents sent each other beside it stays theirs.
  const fileIds = await listOpenFileIds(listo, id);
  if (fileIds.length > 0)
    await listo.db.tables.files.update({ id: fileIds as never }, { ticketNumber: number, messageId }, tx);
  await recordEntry({ listo, tx }, conversation, {
    entry: { type: 'ticket', authorId: viewer.id, data: { number, isMade } },
    changes: { ticketNumber: number, isMade },
  });
}

/**
 * Makes a ticket of a conversation in one go, before or after its end, or ties it to one that there is; once for a
 * conversation that has made one.
 */
export async function ticketOf(
  by: By,
  { number, serviceId, title }: { number: number | null; serviceId: string | null; title: string },
): Promise<{ number: number }> {
  const { listo, viewer, actor, id } = by;
  const { conversation, line } = await requireConversation({ listo, viewer }, id, { as: 'agent' });
  if (number !== null) {
    return change(listo, actor, async (tx) => {
      const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'note' });
      if (ticket.requesterId !== conversation.personId)
        throw new ProblemError('fieldsNotValid', { fields: [{ field: 'number', code: 'notTheirs' }] });
      await attach(by, tx, { number, isMade: false });
      return { number };
    });
  }
  if (conversation.ticketNumber !== null && conversation.isMade) return { number: conversation.ticketNumber };
  const first = await listo.db.tables.conversationEntries.findOne({ conversationId: id, type: 'words' });
  const words = first?.text ?? '';
  return createTicket(
    { listo, viewer, actor },
    {
      ...{
        serviceId: serviceId ?? line.serviceId ?? (await findLastResort(listo)),
        via: 'liveChat',
        requesterId: conversation.personId,
      },
      ...{ title: title.trim() || toTitle(words), alsoToldIds: [], fileIds: [], links: [] },
      answers: { what: words.slice(0, ANSWER_LIMIT) },
    },
    { isLenient: true, after: (tx, made) => attach(by, tx, { number: made, isMade: true }) },
  );
}
