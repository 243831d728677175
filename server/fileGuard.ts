import { mayReadInConversation } from './conversations/files';
import type { FileRow } from './files/model';
import type { FileGuard } from './files/routes';
import { ProblemError } from './http/problems';
import { mayReadInArticle } from './knowledge/pictures';
import type { Listo } from './listo';
import type { SignedIn } from './sessions/viewer';
import { requireTicket } from './tickets/guard';

/** A file of a ticket is for those who may read what it was sent with; one that was not sent, for who brought it. */
async function requireInTicket(listo: Listo, viewer: SignedIn, file: FileRow): Promise<void> {
  const { ticketNumber, messageId } = file;
  if (ticketNumber === null) {
    const isOwn = file.personId === viewer.id && file.conversationId === null && file.articleId === null;
    if (!isOwn) throw new ProblemError('notFound');
    return;
  }
  const message = messageId === null ? null : await listo.db.tables.messages.findOne({ id: messageId });
  await requireTicket(
    { listo, viewer },
    {
      number: ticketNumber,
      action: message?.readBy === 'team' ? 'readNotes' : 'read',
    },
  );
}

/** Whether a file may be read, by where it was sent: with an article, in a conversation, on a ticket. */
export const guardFile: FileGuard = async (listo, viewer, file) => {
  const isOfArticle = file !== null && (await mayReadInArticle(listo, viewer, file));
  if (!viewer && !isOfArticle) throw new ProblemError('notSignedIn');
  if (!file) throw new ProblemError('notFound');
  if (viewer && !isOfArticle && !(await mayReadInConversation(listo, viewer, file)))
    await requireInTicket(listo, viewer, file);
  return file;
};
