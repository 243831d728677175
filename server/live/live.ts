import { setImmediate } from 'node:timers/promises';
import type { Response } from 'express';
import type { LiveEvent, WritingEvent } from '../../contract/live';
import { createRights, may, type Abilities, type Viewer } from '../../core/rights';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { readNames } from '../people/names';
import { findGuarded, type Guarded } from '../tickets/guard';

const HEARTBEAT_MS = 15_000;
const BATCH = 500;
const AT_ONCE = 500;
/** A browser that was away longer asks for its pages anew. */
const MOST_CAUGHT_UP = 2_000;

type Listener = { viewerId: string; rights: Abilities; response: Response };

/** Whether one may learn of the entry: as the requester's side does, or as the team. */
function mayLearn(rights: Abilities, entry: JournalRow, found: Guarded | null): boolean {
  // What concerns no ticket is of calendars, targets and teams, which everyone may read.
  if (entry.ticketNumber === null) return true;
  if (!found) return false;
  return may(rights, entry.audience === 'team' ? 'readNotes' : 'read', found.guarded);
}

/**
 * Sends entries of the journal, in short, to the browsers that may see them. Follows the journal only as far as all
 * consumers have come whose doing pages show, so that a page that asks anew finds what followed.
 */
export class Live {
  private readonly listeners = new Set<Listener>();
  private position = -1;
  private writingSeen = Date.now();
  private readonly heartbeat: NodeJS.Timeout;

  /** @param outward the consumers that pages show nothing of */
  constructor(
    private readonly listo: Listo,
    private readonly outward: string[],
  ) {
    this.heartbeat = setInterval(
      () => this.listeners.forEach(({ response }) => response.write(':\n\n')),
      HEARTBEAT_MS,
    );
  }

  /** Adds a browser, catching it up from the last position that it saw. */
  async join(viewer: Viewer, response: Response, lastSeen: number | null): Promise<void> {
    // It ends with its connection, so that nothing has to say how long each piece is.
    response.useChunkedEncodingByDefault = false;
    response.shouldKeepAlive = false;
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    });
    response.write('retry: 1000\n\n');
    const listener = { viewerId: viewer.id, rights: createRights(viewer), response };
    const position = await this.handledPosition();
    if (lastSeen !== null && position - lastSeen > MOST_CAUGHT_UP)
      response.write(`event: anew\ndata: {}\n\n`);
    else if (lastSeen !== null) await this.send(await this.entriesBetween(lastSeen, position), [listener]);
    response.write(`id: ${position}\nevent: here\ndata: {}\n\n`);
    this.listeners.add(listener);
    response.on('close', () => this.listeners.delete(listener));
  }

  /** Sends what has been handled since the last call. */
  async tail(): Promise<void> {
    const [position] = await Promise.all([
      this.handledPosition(),
      this.listeners.size > 0 ? this.sendWriting() : undefined,
    ]);
    if (this.position === -1 || this.listeners.size === 0) {
      this.position = position;
      return;
    }
    const entries = await this.entriesBetween(this.position, position);
    this.position = entries.at(-1)?.position ?? this.position;
    await this.send(entries, [...this.listeners]);
  }

  stop(): void {
    clearInterval(this.heartbeat);
    this.listeners.forEach(({ response }) => response.end());
  }

  private async handledPosition(): Promise<number> {
    const [row] = await this.listo.db.select<{ position: number | null }>(
      'SELECT MIN(position) AS position FROM consumers WHERE name NOT IN (:outward)',
      { outward: this.outward },
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
      const found = await findGuarded(this.listo, event.number);
      if (!found) continue;
      const action = event.readBy === 'team' ? 'readNotes' : 'read';
      for (const { viewerId, rights, response } of this.listeners)
        if (viewerId !== event.personId && may(rights, action, found.guarded))
          response.write(`event: writing\ndata: ${JSON.stringify(event)}\n\n`);
    }
  }

  private entriesBetween(after: number, until: number): Promise<JournalRow[]> {
    return this.listo.db.select<JournalRow>(
      'SELECT * FROM journal WHERE position > :after AND position <= :until ORDER BY position LIMIT :limit',
      { after, until, limit: BATCH },
    );
  }

  private async send(entries: JournalRow[], listeners: Listener[]): Promise<void> {
    if (entries.length === 0 || listeners.length === 0) return;
    const numbers = new Set(entries.flatMap(({ ticketNumber }) => ticketNumber ?? []));
    const [names, guarded] = await Promise.all([
      readNames(
        this.listo,
        entries.map(({ actorId }) => actorId),
      ),
      Promise.all(
        [...numbers].map(async (number) => [number, await findGuarded(this.listo, number)] as const),
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
      for (const { rights, response } of listeners.slice(i, i + AT_ONCE)) {
        const learned = news.filter(({ entry, found }) => mayLearn(rights, entry, found));
        if (learned.length === 0) continue;
        const which = learned.map(({ entry }) => entry.position).join();
        const piece = pieces.get(which) ?? Buffer.from(learned.map(({ payload }) => payload).join(''));
        pieces.set(which, piece);
        // Straight to the connection: what HTTP adds to a piece is nothing here, and costs as much as the piece.
        (response.socket ?? response).write(piece);
      }
      // They go out while the next ones are written, and others are answered in between.
      if (i + AT_ONCE < listeners.length) await setImmediate();
    }
  }
}
