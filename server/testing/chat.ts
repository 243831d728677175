import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { nanoid } from 'nanoid';
import type { ChatEvent, RoomMessage, RoomView } from '../../contract/rooms';
import type { Ticket } from '../../contract/tickets';
import { sign } from '../http/signing';
import { startTestListo, until, type TestListo } from './harness';

/** What the door between Listo and the chat does. */
type Mode = 'open' | 'shut' | 'broken';

type Answered = { status: number; body: never };
/** Rooms as one of the demo's people has it open. */
export type InRooms = {
  call(method: string, path: string, body?: object): Promise<Answered>;
  read(roomId: string, thread?: string): Promise<RoomMessage[]>;
  say(roomId: string, text: string, threadId?: string | null, key?: string): Promise<string>;
  act(action: string, ...messageIds: string[]): Promise<Answered>;
  listoRoom(): Promise<string>;
  /** Waits for a message that fits. */
  sees(roomId: string, fits: (message: RoomMessage) => boolean, thread?: string): Promise<RoomMessage>;
};

export type ChatTest = {
  app: TestListo;
  rooms(personId: string): Promise<InRooms>;
  /** Tells Listo an event, as the chat does. @returns the status that it answers */
  send(event: ChatEvent, secret?: string, at?: Date): Promise<number>;
  ticketOf(number: number, personId: string): Promise<Ticket>;
  latest(): Promise<number>;
  /** A ticket of Tomás's about a kiosk, which the onboard team has. */
  fromPortal(title: string): Promise<number>;
  write(personId: string, number: number, text: string, readBy: 'requester' | 'team'): Promise<void>;
  move(personId: string, number: number, name: string, input?: object, by?: string): Promise<void>;
  setMode(mode: Mode): void;
  end(): Promise<void>;
};

export const KIOSK = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' };
export const textsOf = ({ entries }: Ticket): string[] =>
  entries.flatMap(({ message }) => message?.text ?? []);

/** Listo and the workplace chat, over HTTP with signed requests both ways, with a door between that can be shut. */
export async function startChatTest(name: string): Promise<ChatTest> {
  let mode: Mode = 'open';
  let url: string | null = null;
  const door = createServer((request, response) => {
    if (mode === 'shut') return void request.socket.destroy();
    if (mode === 'broken' || url === null) return void response.writeHead(500).end();
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      const headers = Object.fromEntries(
        Object.entries(request.headers).filter(([header]) => header.startsWith('webhook-')),
      ) as Record<string, string>;
      void fetch(`${url}/stand-in/rooms/bot${request.url}`, {
        method: 'POST',
        headers,
        body: Buffer.concat(chunks),
      })
        .then(async (answer) => response.writeHead(answer.status).end(await answer.text()))
        .catch(() => response.writeHead(503).end());
    });
  });
  await new Promise<void>((resolve) => door.listen(0, '127.0.0.1', resolve));
  const { port } = door.address() as AddressInfo;
  const app = await startTestListo(name, { env: { LISTO_CHAT_URL: `http://127.0.0.1:${port}` } });
  url = app.url;

  async function rooms(personId: string): Promise<InRooms> {
    const signedIn = await fetch(`${app.url}/api/v1/session/demo`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ personId }),
    });
    const Cookie = signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
    async function call(method: string, path: string, body?: object): Promise<Answered> {
      const answer = await fetch(`${app.url}/stand-in/rooms${path}`, {
        method,
        headers: { Cookie, 'Content-Type': 'application/json' },
        ...(body && { body: JSON.stringify(body) }),
      });
      return { status: answer.status, body: (await answer.json()) as never };
    }
    const read = async (roomId: string, thread?: string): Promise<RoomMessage[]> => {
      const { body } = await call('GET', `/rooms/${roomId}${thread ? `?thread=${thread}` : ''}`);
      return (body as RoomView).messages;
    };
    return {
      call,
      read,
      async say(roomId, text, threadId = null, key = nanoid()) {
        const { body } = await call('POST', `/rooms/${roomId}/messages`, { text, threadId, key });
        return (body as { id: string }).id;
      },
      act: (action, ...messageIds) => call('POST', '/act', { action, messageIds }),
      async listoRoom() {
        const { body } = await call('GET', '/');
        return (body as { rooms: { id: string; kind: string }[] }).rooms.find(({ kind }) => kind === 'listo')!
          .id;
      },
      async sees(roomId, fits, thread) {
        const found = await until(
          async () => (await read(roomId, thread)).find(fits) ?? null,
          (message) => message !== null,
        );
        return found!;
      },
    };
  }

  const ticketOf = async (number: number, personId: string): Promise<Ticket> =>
    (await (await app.as(personId)).call('GET', `/tickets/${number}`)).body as Ticket;
  return {
    app,
    rooms,
    ticketOf,
    async send(event, secret, at = new Date()) {
      const kept = await app.listo.db.tables.settings.findOne({ name: 'chatSecret' });
      const body = JSON.stringify(event);
      const signed = sign(secret ?? (kept!.value as string), { id: event.id, body }, at);
      const headers = { ...signed, 'Content-Type': 'application/json' };
      return (await fetch(`${app.url}/chat/events`, { method: 'POST', headers, body })).status;
    },
    async latest() {
      const [row] = await app.listo.db.select<{ number: number }>(
        'SELECT MAX(number) AS number FROM tickets',
      );
      return row!.number;
    },
    async fromPortal(title) {
      const tomas = await app.as('tomas');
      const { body } = await tomas.call('POST', '/tickets', { serviceId: 'kiosk', title, answers: KIOSK });
      return (body as { number: number }).number;
    },
    async write(personId, number, text, readBy) {
      const body = { text, readBy, links: [], fileIds: [] };
      await (await app.as(personId)).call('POST', `/tickets/${number}/messages`, body);
    },
    async move(personId, number, moveName, input = {}, by = 'agent') {
      const { version } = await ticketOf(number, personId);
      const body = { name: moveName, by, version, input };
      const { status } = await (await app.as(personId)).call('POST', `/tickets/${number}/moves`, body);
      if (status !== 200) throw new Error(`${moveName} was answered ${status}`);
    },
    setMode: (wanted) => (mode = wanted),
    async end() {
      await app.end();
      door.close();
    },
  };
}
