import type { NewConversationEntry } from '../../core/conversations';
import { nanoid } from 'nanoid';
import type { ConversationEntryRow, ConversationRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

/** Adds to a conversation, and changes it: the one door through which conversations change. */
export async function recordEntry(
  { listo, tx }: UnitOfWork,
  conversation: ConversationRow,
  {
    entry,
    changes = {},
  }: {
    entry: NewConversationEntry &
      Pick<ConversationEntryRow, 'authorId'> &
      Partial<Pick<ConversationEntryRow, 'readBy' | 'text'>>;
    changes?: Partial<ConversationRow>;
  },
): Promise<string> {
  const { tables } = listo.db;
  const id = nanoid();
  const at = listo.clock.now();
  await tables.conversationEntries.insert(
    {
      readBy: 'all',
      text: '',
      data: {},
      ...entry,
      id,
      conversationId: conversation.id,
      at,
    },
    tx,
  );
  const next = { ...changes, version: conversation.version + 1 };
  await tables.conversations.update({ id: conversation.id }, next, tx);
  Object.assign(conversation, next);
  return id;
}
