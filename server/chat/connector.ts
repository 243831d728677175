import { nanoid } from 'nanoid';
import type { BotCalls } from '../../contract/rooms';
import { sign, type ChatAccess } from './signing';

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
  readFile(fileId: string): Promise<{ name: string; type: string; content: Buffer }>;
}

const TIMEOUT_MS = 10_000;

/** A chat that is asked over HTTP with signed requests, such as the stand-in. */
export function createConnector({ url, secret }: ChatAccess): ChatConnector {
  async function ask<N extends keyof BotCalls, A>(name: N, asked: BotCalls[N]): Promise<A> {
    const body = JSON.stringify(asked);
    let answer: Response;
    try {
      answer = await fetch(`${url}/${name}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', ...sign(secret, nanoid(), body) },
        body,
        signal: AbortSignal.timeout(TIMEOUT_MS),
      });
    } catch (error) {
      throw new ChatAway((error as Error).message);
    }
    if (answer.status >= 500 || answer.status === 429 || answer.status === 401)
      throw new ChatAway(`${name}: ${answer.status}`);
    const said = (await answer.json()) as A & { error?: string };
    if (!answer.ok) throw new ChatRefused(`${name}: ${said.error ?? answer.status}`);
    return said;
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
    async readFile(fileId) {
      const file = await ask<'file', { name: string; type: string; content: string }>('file', { fileId });
      return { ...file, content: Buffer.from(file.content, 'base64') };
    },
  };
}
