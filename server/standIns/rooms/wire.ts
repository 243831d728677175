import pLimit from 'p-limit';
import type { Response } from 'express';
import type { RoomsLive } from '../../../contract/rooms';
import { findChat } from '../../chat/access';
import { sign } from '../../http/signing';
import { startLoop, type Loop } from '../../loops/loop';
import { Follower } from '../../live/follower';
import { beginStream, sendPiece } from '../../live/stream';
import type { Listo } from '../../listo';
import type { RoomChangeRow, RoomEventRow, RoomPersonRow } from './model';
import { hereOf } from './people';
import { showMessages } from './said';

const LOOK_MS = 400;
const HEARTBEAT_MS = 15_000;
const BATCH = 300;
const TIMEOUT_MS = 10_000;
const RETRY_MS = 500;
const LONGEST_RETRY_MS = 10_000;
const AT_ONCE = 40;
/** Of one room; their numbers say in which order they were said. */
const TOLD_AT_ONCE = 4;

type Listener = { me: RoomPersonRow; response: Response };
type Membership = { roomId: string; personId: string };

/** What goes out of the workplace chat: to the browsers that have it open, and to the one connected. */
export class RoomsWire {
  private readonly listeners = new Set<Listener>();
  private readonly follower: Follower<RoomChangeRow>;
  private readonly heartbeat: NodeJS.Timeout;
  private readonly events: Loop;

  constructor(private readonly listo: Listo) {
    this.follower = new Follower<RoomChangeRow>({
      ...{ everyMs: LOOK_MS, log: listo.log, numberOf: ({ id }) => id },
      isWatched: () => this.listeners.size > 0,
      read: (after, limit) =>
        listo.db.select('SELECT * FROM room_changes WHERE id > :after ORDER BY id LIMIT :limit', {
          after,
          limit,
        }),
      pass: (changes) => this.send(changes),
    });
    this.heartbeat = setInterval(
      () => this.listeners.forEach(({ response }) => sendPiece(response, ':\n\n')),
      HEARTBEAT_MS,
    ).unref();
    this.events = startLoop(listo, 'roomEvents', () => this.tellEvents());
  }

  /** Something was committed that others may see. */
  wake(): void {
    this.follower.look();
    this.events.wake();
  }

  async join(me: RoomPersonRow, response: Response): Promise<void> {
    beginStream(response);
    if (this.listeners.size === 0) this.follower.begin(await this.lastChange());
    const listener = { me, response };
    this.listeners.add(listener);
    this.count(me.id, 1);
    // Who reads anew on this word misses nothing: what comes from now on is sent.
    response.write('event: ready\ndata: {}\n\n');
    response.on('close', () => {
      this.listeners.delete(listener);
      this.count(me.id, -1);
    });
  }

  /** Ends the streams; browsers come back to another process. */
  end(): void {
    this.listeners.forEach(({ response }) => response.end());
  }

  async stop(): Promise<void> {
    clearInterval(this.heartbeat);
    this.end();
    await this.events.stop();
    await this.follower.stop();
  }

  private count(id: string, by: number): void {
    const here = hereOf(this.listo);
    here.set(id, (here.get(id) ?? 0) + by);
    this.sendAll({ kind: 'here', ids: [...here].flatMap(([each, count]) => (count > 0 ? [each] : [])) });
  }

  private sendAll(event: RoomsLive): void {
    const line = `data: ${JSON.stringify(event)}\n\n`;
    this.listeners.forEach(({ response }) => sendPiece(response, line));
  }

  private async lastChange(): Promise<number> {
    const [row] = await this.listo.db.select<{ id: number }>(
      'SELECT COALESCE(MAX(id), 0) AS id FROM room_changes',
    );
    return row!.id;
  }

  /** Sends what has changed since the last look to those who may see it. */
  private async send(fresh: RoomChangeRow[]): Promise<void> {
    if (fresh.length === 0) return;
    const { select, tables } = this.listo.db;
    const refs = [...new Set(fresh.flatMap(({ kind, ref }) => (kind === 'message' && ref ? [ref] : [])))];
    const messages = refs.length > 0 ? await tables.roomMessages.find({ id: refs }) : [];
    const shown = new Map((await showMessages(this.listo, messages)).map((message) => [message.id, message]));
    const roomIds = [...new Set(fresh.map(({ roomId }) => roomId))];
    const rooms = await tables.rooms.find({ id: roomIds });
    const members = await select<Membership>(
      'SELECT roomId, personId FROM room_members WHERE roomId IN (:roomIds)',
      {
        roomIds,
      },
    );
    const inside = new Set(members.map(({ roomId, personId }) => `${roomId} ${personId}`));
    for (const { roomId, kind, ref, forId, body } of fresh) {
      const isOpen = rooms.find(({ id }) => id === roomId)?.kind === 'open';
      const message = shown.get(ref ?? '');
      const event: RoomsLive | null =
        kind === 'message'
          ? message
            ? { kind, message }
            : null
          : kind === 'form'
            ? ({ kind, roomId, form: body } as RoomsLive)
            : { kind: 'rooms' };
      if (!event) continue;
      const line = `data: ${JSON.stringify(event)}\n\n`;
      for (const { me, response } of this.listeners)
        if ((isOpen || inside.has(`${roomId} ${me.id}`)) && (forId === null || forId === me.id))
          sendPiece(response, line);
    }
  }

  /** Tells the one connected what happened: of each room in its order, some rooms at once. */
  private async tellEvents(): Promise<number | 'wait'> {
    const chat = await findChat(this.listo);
    if (!chat) return 0;
    const now = Date.now();
    const rows = await this.listo.db.select<RoomEventRow>(
      "SELECT * FROM room_events WHERE state = 'waiting' ORDER BY roomId, seq LIMIT :limit",
      { limit: BATCH },
    );
    const byRoom = new Map<string, RoomEventRow[]>();
    for (const row of rows) byRoom.set(row.roomId, [...(byRoom.get(row.roomId) ?? []), row]);
    // A room whose first is not due yet waits with all of its own.
    const due = [...byRoom.values()].filter(([first]) => first!.tries === 0 || first!.nextAt <= now);
    let told = 0;
    for (let i = 0; i < due.length; i += AT_ONCE)
      for (const count of await Promise.all(
        due.slice(i, i + AT_ONCE).map((room) => this.tellRoom(chat.secret, room)),
      ))
        told += count;
    return told;
  }

  private async tellRoom(secret: string, rows: RoomEventRow[]): Promise<number> {
    const { roomEvents } = this.listo.db.tables;
    const limit = pLimit(TOLD_AT_ONCE);
    const going = { told: 0, isAway: false };
    const tell = async ({ id, body, tries }: RoomEventRow): Promise<void> => {
      if (going.isAway) return;
      if (await this.tellOne(secret, id, JSON.stringify(body))) {
        await roomEvents.update({ id }, { state: 'told', tries: tries + 1 });
        going.told++;
      } else {
        const wait = Math.min(LONGEST_RETRY_MS, RETRY_MS * 2 ** Math.min(tries, 6));
        await roomEvents.update({ id }, { tries: tries + 1, nextAt: Date.now() + wait });
        going.isAway = true;
      }
    };
    await Promise.all(rows.map((row) => limit(() => tell(row))));
    return going.told;
  }

  private async tellOne(secret: string, id: string, body: string): Promise<boolean> {
    try {
      const answer = await fetch(`${this.listo.address}/chat/events`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', ...sign(secret, { id, body }) },
        body,
        signal: AbortSignal.timeout(TIMEOUT_MS),
      });
      // What it will never take is not sent for ever.
      return (
        answer.ok ||
        (answer.status >= 400 && answer.status < 500 && answer.status !== 401 && answer.status !== 429)
      );
    } catch {
      return false;
    }
  }
}
