import type { Response } from 'express';
import type { LiveEvent, WritingEvent } from '../../contract/live';
import { createRights, may, type Viewer } from '../../core/rights';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import { readNames } from '../people/names';
import { findGuarded, type Guarded } from '../tickets/guard';

const HEARTBEAT_MS = 15_000;
const BATCH = 500;
/** A browser that was away longer asks for its pages anew. */
const MOST_CAUGHT_UP = 2_000;

type Listener = { viewer: Viewer; response: Response };

/** Whether the viewer may learn of the entry: as the requester's side does, or as the team. */
function mayLearn(viewer: Viewer, entry: JournalRow, found: Guarded | null): boolean {
  // What concerns no ticket is of calendars, targets and teams, which everyone may read.
  if (entry.ticketNumber === null) return true;
  if (!found) return false;
  return may(createRights(viewer), entry.audience === 'team' ? 'readNotes' : 'read', found.guarded);
}

/**
 * Sends entries of the journal, in short, to the browsers that may see them. Follows the journal only as far as all
 * consumers have come, so that a page that asks anew finds what followed.
 */
export class Live {
  private readonly listeners = new Set<Listener>();
  private position = -1;
  private writingSeen = Date.now();
  private readonly heartbeat: NodeJS.Timeout;

  constructor(private readonly listo: Listo) {
    this.heartbeat = setInterval(
      () => this.listeners.forEach(({ response }) => response.write(':\n\n')),
      HEARTBEAT_MS,
    );
  }

  /** Adds a browser, catching it up from the last position that it saw. */
  async join(viewer: Viewer, response: Response, lastSeen: number | null): Promise<void> {
    response.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    });
    response.write('retry: 1000\n\n');
    const listener = { viewer, response };
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
    if (this.listeners.size > 0) await this.sendWriting();
    const position = await this.handledPosition();
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
      'SELECT MIN(position) AS position FROM consumers',
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
      for (const { viewer, response } of this.listeners)
        if (viewer.id !== event.personId && may(createRights(viewer), action, found.guarded))
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
    const names = await readNames(
      this.listo,
      entries.map(({ actorId }) => actorId),
    );
    const tickets = new Map<number, Guarded | null>();
    for (const number of new Set(entries.map(({ ticketNumber }) => ticketNumber)))
      if (number !== null) tickets.set(number, await findGuarded(this.listo, number));
    for (const entry of entries) {
      const { position, type, ticketNumber, actorId, at } = entry;
      const actor = names.get(actorId ?? '') ?? null;
      const event: LiveEvent = { position: position!, type, number: ticketNumber, actorId, actor, at };
      const payload = `id: ${position}\ndata: ${JSON.stringify(event)}\n\n`;
      const found = ticketNumber === null ? null : (tickets.get(ticketNumber) ?? null);
      for (const { viewer, response } of listeners)
        if (mayLearn(viewer, entry, found)) response.write(payload);
    }
  }
}
