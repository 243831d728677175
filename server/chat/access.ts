import { readSecret } from '../http/secrets';
import type { Listo } from '../listo';

export type ChatAccess = {
  /** Where the workplace chat takes what Listo asks of it. */
  url: string;
  secret: string;
};

const SETTING = 'chatSecret';

/** How the workplace chat is reached: the one that is configured, else in the demo the stand-in; null: there is none. */
export async function findChat(listo: Listo): Promise<ChatAccess | null> {
  const { LISTO_CHAT_URL: url, LISTO_CHAT_SECRET: secret } = listo.config;
  if (url !== undefined) return { url, secret: secret ?? (await readSecret(listo, SETTING)) };
  if (!(await listo.db.tables.settings.findOne({ name: 'demo' }))) return null;
  return { url: `${listo.address}/stand-in/rooms/bot`, secret: await readSecret(listo, SETTING) };
}
