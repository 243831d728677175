import { factsOfConversationEntry } from '../../core/conversations';
import type { FileRow } from '../files/model';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireConversation } from './guard';
import type { ConversationEntryRow } from './model';

/** The files that were sent with an entry. */
export const fileIdsOf = (entry: Pick<ConversationEntryRow, 'data'>): string[] =>
  factsOfConversationEntry(entry).fileIds ?? [];

/** The files of a conversation that its employee may read too: those of what was said to all. */
export async function listOpenFileIds({ db }: Listo, conversationId: string): Promise<string[]> {
  const entries = await db.tables.conversationEntries.find({ conversationId, readBy: 'all' });
  return entries.flatMap(fileIdsOf);
}

/** Whether someone may read a file by the conversation in which it was sent. What agents sent each other is theirs. */
export async function mayReadInConversation(
  listo: Listo,
  viewer: SignedIn,
  { id, conversationId }: Pick<FileRow, 'id' | 'conversationId'>,
): Promise<boolean> {
  if (conversationId === null) return false;
  const found = await requireConversation({ listo, viewer }, conversationId).catch(() => null);
  if (!found) return false;
  return found.side === 'agent' || (await listOpenFileIds(listo, conversationId)).includes(id);
}
