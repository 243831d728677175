import type { Transaction } from 'sequelize';
import { ProblemError } from '../http/problems';
import type { SignedIn } from '../sessions/viewer';
import type { ChatLineRow, ConversationRow } from './model';
import type { Viewing } from '../unitOfWork';

export type Side = 'person' | 'agent';
export type Guarded = { conversation: ConversationRow; line: ChatLineRow; side: Side };

/**
 * On which side of a conversation someone stands: its employee, or those agents who have to do with it: who has it or is
 * offered it, the team whose line it is in, and colleagues who were asked in; null: it is not theirs to know.
 */
export function sideOf(
  viewer: Pick<SignedIn, 'id' | 'teams'>,
  { personId, agentId, offeredTo, invitedIds }: ConversationRow,
  { teamId }: Pick<ChatLineRow, 'teamId'>,
): Side | null {
  if (personId === viewer.id) return 'person';
  const isAgent =
    viewer.teams.some((team) => team.teamId === teamId) ||
    [agentId, offeredTo, ...invitedIds].includes(viewer.id);
  return isAgent ? 'agent' : null;
}

/**
 * A conversation, for those who stand on a side of it; for others it is not there. Inside a transaction it is locked.
 */
export async function requireConversation(
  { listo, viewer }: Viewing,
  id: string,
  { tx, as }: { tx?: Transaction; as?: Side } = {},
): Promise<Guarded> {
  const { tables } = listo.db;
  const conversation = await tables.conversations.findOne({ id }, tx, tx !== undefined);
  const line = conversation && (await tables.chatLines.findOne({ id: conversation.lineId }, tx));
  if (!conversation || !line) throw new ProblemError('notFound');
  const side = sideOf(viewer, conversation, line);
  if (side === null) throw new ProblemError('notFound');
  if (as !== undefined && as !== side) throw new ProblemError('forbidden');
  return { conversation, line, side };
}
