import { factsOfEntry, type EntryKind } from '../../core/journal';
import { setImmediate } from 'node:timers/promises';
import type { Response } from 'express';
import type { LiveEvent, WritingEvent } from '../../contract/live';
import { createRights, may, type Abilities, type Viewer } from '../../core/rights';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { readNames } from '../people/names';
import type { findGuarded, Guarded } from '../tickets/guard';
import { beginStream, sendPiece } from './stream';

const HEARTBEAT_MS = 15_000;
const BATCH = 500;
const AT_ONCE = 500;
/** Entries that say something of a person: their data names them, and the teams whose affair it is. */
const ABOUT_PEOPLE = new Set<EntryKind>([
  ...(['personMade', 'personChanged', 'personInvited', 'personArrived', 'passwordForgotten'] as const),
  ...(['memberSet', 'memberGone'] as const),
  ...(['personLeft', 'personBack', 'presenceSet'] as const),
]);
/** Entries that say something of a thing: for those who work at the Desk, and for who has it. */
const ABOUT_THINGS = new Set<EntryKind>([
  ...(['thingMade', 'thingChanged', 'thingActed', 'thingNeeds', 'thingSaid', 'thingsCounted'] as const),
]);
/** A browser that was away longer asks for its pages anew. */
const MOST_CAUGHT_UP = 2_000;

/** What the stream is given of the floors above it. */
export type LiveSurroundings = {
  /** The consumers that pages show nothing of. */
  outward: string[];
  readNames: typeof readNames;
  findGuarded: typeof findGuarded;
};

type Listener = { viewer: Viewer; rights: Abilities; response: Response };

/** What is of people is for those who have to do with them; calendars, targets and teams are for everyone to read. */
function concerns({ id, isAdministrator, teams }: Viewer, entry: JournalRow): boolean {
  const { personId, personIds = [], teamIds = [] } = factsOfEntry(entry);
  if (ABOUT_THINGS.has(entry.type)) return isAdministrator || teams.length > 0 || personIds.includes(id);
  if (!ABOUT_PEOPLE.has(entry.type)) return true;
  if (isAdministrator || entry.actorId === id || personId === id) return true;
  return teams.some(({ teamId }) => teamIds.includes(teamId));
}

/** Whether one may learn of the entry: as the requester's side does, or as the team. */
function mayLearn(
  { viewer, rights }: Pick<Listener, 'viewer' | 'rights'>,
  entry: JournalRow,
  found: Guarded | null,
): boolean {
  if (entry.ticketNumber === null) return concerns(viewer, entry);
  if (!found) return false;
  return may(rights, entry.audience === 'team' ? 'readNotes' : 'read', found.guarded);
}

/**
 * Sends entries of the journal, in short, to the browsers that may see them. Follows the journal only as far as all
 * consumers have come whose doing pages show, so that a page that asks anew finds what followed.
 */
export class Live {
  private readonly listeners = new Set<Listener>();

  /** How many browsers are told. */
  get size(): number {
    return this.listeners.size;
  }

  private position = -1;
  private turn: Promise<unknown> = Promise.resolve();
  private writingSeen = Date.now();
  private readonly heartbeat: NodeJS.Timeout;

  constructor(
    private readonly listo: Listo,
    private readonly around: LiveSurroundings,
  ) {
    this.heartbeat = setInterval(
      () => this.listeners.forEach(({ response }) => sendPiece(response, ':\n\n')),
      HEARTBEAT_MS,
    );
  }

  /** Adds a browser, catching it up from the last position that it saw. */
  async join(viewer: Viewer, response: Response, lastSeen: number | null): Promise<void> {
    // It ends with its connection, so that nothing has to say how long each piece is.
    response.useChunkedEncodingByDefault = false;
    response.shouldKeepAlive = false;
    beginStream(response);
    const listener = { viewer, rights: createRights(viewer), response };
    response.on('close', () => this.listeners.delete(listener));
    await this.alone(async () => {
      // Up to here the others have been sent everything; whoever joins now gets the rest with them.
      const position = this.listeners.size > 0 ? this.position : await this.handledPosition();
      this.position = position;
      if (lastSeen !== null && position - lastSeen > MOST_CAUGHT_UP)
        response.write(`event: anew\ndata: {}\n\n`);
      else if (lastSeen !== null)
        for await (const entries of this.entriesBetween(lastSeen, position))
          await this.send(entries, [listener]);
      response.write(`id: ${position}\nevent: here\ndata: {}\n\n`);
      if (!response.closed) this.listeners.add(listener);
    });
  }

  /** Sends what has been handled since the last call. */
  tail(): Promise<void> {
    return this.alone(async () => {
      const [position] = await Promise.all([
        this.handledPosition(),
        this.listeners.size > 0 ? this.sendWriting() : undefined,
      ]);
      if (this.listeners.size === 0) {
        this.position = position;
        return;
      }
      for await (const entries of this.entriesBetween(this.position, position)) {
        await this.send(entries, [...this.listeners]);
        // Moved once they are sent: what could not be is sent with the next call.
        this.position = entries.at(-1)!.position!;
      }
    });
  }

  /** Joining and sending do not run beside each other: nothing falls between them. */
  private alone<T>(work: () => Promise<T>): Promise<T> {
    const result = this.turn.then(work);
    this.turn = result.then(
      () => undefined,
      () => undefined,
    );
    return result;
  }

  stop(): void {
    clearInterval(this.heartbeat);
    this.listeners.forEach(({ response }) => response.end());
  }

  private async handledPosition(): Promise<number> {
    const [row] = await this.listo.db.select<{ position: number | null }>(
      'SELECT MIN(position) AS position FROM consumers WHERE name NOT IN (:outward)',
      { outward: this.around.outward },
    );
    return row?.position ?? 0;
  }

  /** Who is writing now, to those on the same ticket; what was missed is not caught up on. */
  private async sendWriting(): Promise<void> {
    const rows = await this.listo.db.select<WritingEvent & { at: number }>(
      `SELECT w.ticketNumber AS number, w.personId, p.name, w.readBy, w.at FROM writing w
       JOIN people p ON p.id = w.personId WHERE w.at > :seen ORDER BY w.at`,
      { seen: this.writingSeen },
    );
    this.writingSeen = rows.at(-1)?.at ?? this.writingSeen;
    for (const { at: _, ...event } of rows) {
      const found = await this.around.findGuarded(this.listo, event.number);
      if (!found) continue;
      const action = event.readBy === 'team' ? 'readNotes' : 'read';
      for (const { viewer, rights, response } of this.listeners)
        if (viewer.id !== event.personId && may(rights, action, found.guarded))
          sendPiece(response, `event: writing\ndata: ${JSON.stringify(event)}\n\n`);
    }
  }

  private async *entriesBetween(after: number, until: number): AsyncGenerator<JournalRow[]> {
    for (let from = after; from < until;) {
      const entries = await this.listo.db.select<JournalRow>(
        'SELECT * FROM journal WHERE position > :from AND position <= :until ORDER BY position LIMIT :limit',
        { from, until, limit: BATCH },
      );
      if (entries.length === 0) return;
      yield entries;
      from = entries.at(-1)!.position!;
    }
  }

  private async send(entries: JournalRow[], listeners: Listener[]): Promise<void> {
    if (entries.length === 0 || listeners.length === 0) return;
    const numbers = new Set(entries.flatMap(({ ticketNumber }) => ticketNumber ?? []));
    const [names, guarded] = await Promise.all([
      this.around.readNames(
        this.listo,
        entries.map(({ actorId }) => actorId),
      ),
      Promise.all(
        [...numbers].map(
          async (number) => [number, await this.around.findGuarded(this.listo, number)] as const,
        ),
      ),
    ]);
    const tickets = new Map<number, Guarded | null>(guarded);
    const news = entries.map((entry) => {
      const { position, type, ticketNumber, actorId, at } = entry;
      const actor = names.get(actorId ?? '') ?? null;
      const event: LiveEvent = { position: position!, type, number: ticketNumber, actorId, actor, at };
      const payload = `id: ${position}\ndata: ${JSON.stringify(event)}\n\n`;
      return { entry, payload, found: ticketNumber === null ? null : (tickets.get(ticketNumber) ?? null) };
    });
    // What several learn is put together once.
    const pieces = new Map<string, Buffer>();
    for (let i = 0; i < listeners.length; i += AT_ONCE) {
      for (const { viewer, rights, response } of listeners.slice(i, i + AT_ONCE)) {
        const learned = news.filter(({ entry, found }) => mayLearn({ viewer, rights }, entry, found));
        if (learned.length === 0) continue;
        const which = learned.map(({ entry }) => entry.position).join();
        const piece = pieces.get(which) ?? Buffer.from(learned.map(({ payload }) => payload).join(''));
        pieces.set(which, piece);
        sendPiece(response, piece);
      }
      // They go out while the next ones are written, and others are answered in between.
      if (i + AT_ONCE < listeners.length) await setImmediate();
    }
  }
}
