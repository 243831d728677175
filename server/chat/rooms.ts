import type { Listo } from '../listo';
import type { ChatConnector } from './connector';
import { findByChatId } from './identities';
import type { ChatRoomRow } from './model';
import { queueChat } from './queue';
import { say } from './says';

/** Who is in a team's room and may not read what is the team's: no agent, or, of a confidential team, none of its own. */
export async function findStranger(
  listo: Listo,
  chat: ChatConnector,
  { roomId, teamId }: Pick<ChatRoomRow, 'roomId' | 'teamId'>,
): Promise<string | null> {
  const { people } = await chat.listMembers(roomId);
  if (people.length === 0) return null;
  const team = await listo.db.tables.teams.findOne({ id: teamId ?? '' });
  const known = await listo.db.select<{ chatId: string }>(
    `SELECT i.chatId FROM chat_identities i JOIN people p ON p.id = i.personId AND p.leftAt IS NULL
     WHERE i.chatId IN (:chatIds) AND EXISTS (SELECT 1 FROM team_members m
       WHERE m.personId = i.personId AND (m.teamId = :teamId OR NOT :isConfidential))`,
    {
      ...{ chatIds: people.map(({ id }) => id), teamId, isConfidential: team?.isConfidential ?? false },
    },
  );
  const fit = new Set(known.map(({ chatId }) => chatId));
  for (const { id, name } of people) {
    if (fit.has(id)) continue;
    // Nobody may have asked yet who that is.
    const viewer = await findByChatId(listo, chat, id);
    const isFit = team?.isConfidential
      ? viewer?.teams.some((each) => each.teamId === teamId)
      : (viewer?.teams.length ?? 0) > 0;
    if (!isFit) return name;
  }
  return null;
}

/** Stops writing into a team's room where someone has come in who may not read it, and says so there. */
export async function refuseStrangers(
  listo: Listo,
  chat: ChatConnector,
  room: ChatRoomRow,
): Promise<string | null> {
  const stranger = await findStranger(listo, chat, room);
  if (stranger === null) return null;
  const { tables, transaction } = listo.db;
  await transaction(async (tx) => {
    const changed = await tables.chatRooms.update(
      { roomId: room.roomId, state: 'on' },
      { state: 'stopped', reason: stranger.slice(0, 200), version: room.version + 1 },
      tx,
    );
    if (changed === 1)
      await queueChat(listo, tx, {
        body: {
          do: 'say',
          text: say('stopped', room.language, { who: stranger }),
          forId: null,
          threadId: null,
        },
        to: { roomId: room.roomId },
      });
  });
  return stranger;
}
