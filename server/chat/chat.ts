import type { FileStore } from '../files/store';
import type { Listo } from '../listo';
import { createConnector, type ChatConnector } from './connector';
import { hearWaiting } from './inbox';
import { findChatId } from './identities';
import { startLoop } from '../loops/loop';
import { sendWaiting } from './out';
import { readChatSettings } from './settings';
import { findChat } from './access';

export type ChatRun = { wake(): void; stop(): Promise<void> };

/** Says to the chat what people find beside messages. */
export async function declareActions(listo: Listo, chat: ChatConnector): Promise<void> {
  const { name, seenBy } = await readChatSettings(listo);
  let forIds: string[] | null = null;
  if (seenBy === 'agents') {
    forIds = [];
    const agents = await listo.db.select<{ personId: string }>('SELECT DISTINCT personId FROM team_members');
    for (const { personId } of agents) forIds.push((await findChatId(listo, chat, personId)) ?? '');
  }
  await chat.setMessageActions([{ id: 'ticket', name: name.en, forIds }]);
}

/** Chat of a process: what comes in, and what goes out. */
export function startChat(listo: Listo, store: FileStore): ChatRun {
  let isDeclared = false;
  const said = startLoop(listo, 'chatOut', async () => {
    const access = isDeclared ? null : await findChat(listo);
    if (access) {
      // It may not be there yet; it is said with the next thing that is.
      isDeclared = await declareActions(listo, createConnector(access)).then(
        () => true,
        () => false,
      );
    }
    return sendWaiting(listo);
  });
  const heard = startLoop(listo, 'chatIn', async () => {
    const done = await hearWaiting(listo, store);
    if (done !== 0) said.wake();
    return done;
  });
  return {
    wake() {
      heard.wake();
      said.wake();
    },
    async stop() {
      await heard.stop();
      await said.stop();
    },
  };
}
