import { toAddress } from '../../core/identity';
import type { Listo } from '../listo';
import { findPersonAsViewer, type SignedIn } from '../sessions/viewer';
import type { ChatConnector } from './connector';

/** The account behind someone in chat: tied once, by the mail address that both know; null: the directory has nobody. */
export async function findByChatId(
  listo: Listo,
  chat: ChatConnector,
  chatId: string,
): Promise<SignedIn | null> {
  const { tables } = listo.db;
  const tied = await tables.chatIdentities.findOne({ chatId });
  if (tied) return findPersonAsViewer(listo, tied.personId);
  const [known] = await chat.findPeople({ ids: [chatId] });
  const address = known ? toAddress(known.email) : null;
  const person = address === null ? null : await tables.people.findOne({ email: address, leftAt: null });
  if (!person) return null;
  await tie(listo, chatId, person.id);
  return findPersonAsViewer(listo, person.id);
}

/** Under which name the chat knows someone; null: it does not. */
export async function findChatId(
  listo: Listo,
  chat: ChatConnector,
  personId: string,
): Promise<string | null> {
  const { tables } = listo.db;
  const tied = await tables.chatIdentities.findOne({ personId });
  if (tied) return tied.chatId;
  const person = await tables.people.findOne({ id: personId, leftAt: null });
  const [known] = person?.email ? await chat.findPeople({ email: person.email }) : [];
  if (!known) return null;
  await tie(listo, known.id, personId);
  return known.id;
}

function tie(listo: Listo, chatId: string, personId: string): Promise<void> {
  return listo.db.run(
    'INSERT IGNORE INTO chat_identities (chatId, personId, at) VALUES (:chatId, :personId, :at)',
    {
      ...{ chatId, personId, at: listo.clock.now() },
    },
  );
}
