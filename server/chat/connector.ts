import { nanoid } from 'nanoid';
import type { BotCalls, ToldMessage } from '../../contract/rooms';
import { type ChatAccess } from './access';
import { sign } from '../http/signing';

/** The chat cannot be reached now, or says that it cannot now: it is to be tried again. */
export class ChatAway extends Error {}
/** The chat will never take this. */
export class ChatRefused extends Error {}

type ChatPerson = { id: string; name: string; email: string };

/**
 * All that Listo asks of a workplace chat. Another chat is another one of these; what it tells Listo comes in at
 * /chat/events.
 */
export interface ChatConnector {
  /** Says something in a room or in a person's direct talk: once, however often it is asked with the same key. */
  post(message: BotCalls['post']): Promise<{ id: string; roomId: string }>;
  update(change: BotCalls['update']): Promise<void>;
  openForm(form: BotCalls['form']): Promise<void>;
  findPeople(by: BotCalls['people']): Promise<ChatPerson[]>;
  listMembers(roomId: string): Promise<{ kind: string; name: string; people: ChatPerson[] }>;
  listRooms(): Promise<{ id: string; name: string; kind: string }[]>;
  join(roomId: string): Promise<void>;
  /** What people find beside any message, and who does. */
  setMessageActions(actions: BotCalls['messageActions']['actions']): Promise<void>;
  /** What was said before a message, in its thread where it is in one; the earliest first. */
  readBefore(messageId: string, count: number): Promise<ToldMessage[]>;
  readFile(fileId: string): Promise<{ name: string; type: string; content: Buffer }>;
}

const TIMEOUT_MS = 10_000;
/** By these the chat refuses what it will refuse again. */
const REFUSALS = new Set([400, 403, 404, 409, 410, 422]);

/** An answer as the chat gives them: an object; null where it is anything else. */
function readAnswer(text: string): object | null {
  try {
    const said = JSON.parse(text) as unknown;
    return typeof said === 'object' && said !== null && !Array.isArray(said) ? said : null;
  } catch {
    return null;
  }
}

/** A chat that is asked over HTTP with signed requests, such as the stand-in. */
export function createConnector({ url, secret }: ChatAccess): ChatConnector {
  async function ask<N extends keyof BotCalls, A>(name: N, asked: BotCalls[N]): Promise<A> {
    const body = JSON.stringify(asked);
    let status: number;
    let said: (A & { error?: string }) | null;
    try {
      const answer = await fetch(`${url}/${name}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', ...sign(secret, { id: nanoid(), body }) },
        body,
        redirect: 'error',
        signal: AbortSignal.timeout(TIMEOUT_MS),
      });
      ({ status } = answer);
      // An answer that breaks off, or takes too long while it is read, is none.
      said = readAnswer(await answer.text()) as (A & { error?: string }) | null;
    } catch (error) {
      throw new ChatAway((error as Error).message);
    }
    // Only what the chat itself says, well formed, is its word: a page of something in between is not.
    if (said === null) throw new ChatAway(`${name}: ${status} without an answer that can be read`);
    if (status >= 200 && status < 300) return said;
    if (REFUSALS.has(status) && typeof said.error === 'string')
      throw new ChatRefused(`${name}: ${said.error}`);
    throw new ChatAway(`${name}: ${status}`);
  }
  return {
    post: (message) => ask('post', message),
    update: (change) => ask('update', change),
    openForm: (form) => ask('form', form),
    findPeople: async (by) => (await ask<'people', { people: ChatPerson[] }>('people', by)).people,
    listMembers: (roomId) => ask('members', { roomId }),
    listRooms: async () =>
      (await ask<'rooms', { rooms: { id: string; name: string; kind: string }[] }>('rooms', {})).rooms,
    join: (roomId) => ask('join', { roomId }),
    setMessageActions: (actions) => ask('messageActions', { actions }),
    readBefore: async (messageId, count) =>
      (await ask<'before', { messages: ToldMessage[] }>('before', { messageId, count })).messages,
    async readFile(fileId) {
      const file = await ask<'file', { name: string; type: string; content: string }>('file', { fileId });
      return { ...file, content: Buffer.from(file.content, 'base64') };
    },
  };
}
