import { TICKET_FORM_FIELDS, type ChatFormSettings } from '../../contract/chat';
import type { Listo } from '../listo';

export const CHAT_SETTING = 'chat';
export const USUAL_CHAT: ChatFormSettings = {
  isOn: true,
  name: { en: 'Make a ticket of this', pt: 'Fazer disto um pedido' },
  fields: [...TICKET_FORM_FIELDS],
  seenBy: 'everyone',
  presets: { service: null, team: null, urgency: null },
  formServiceIds: [],
  version: 0,
};

export async function readChatSettings({ db }: Listo): Promise<ChatFormSettings> {
  const row = await db.tables.settings.findOne({ name: CHAT_SETTING });
  return row ? { ...USUAL_CHAT, ...(row.value as Partial<ChatFormSettings>) } : USUAL_CHAT;
}
