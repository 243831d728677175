import type { Response } from 'express';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { Follower } from '../live/follower';
import { beginStream, sendPiece } from '../live/stream';
import { sideOf, type Side } from './guard';
import type { ConversationEntryRow } from './model';
import { startOffers } from './offers';
import type { Loop } from '../loops/loop';

const LOOK_MS = 500;
const SEEN_MS = 10_000;

type Fresh = Pick<ConversationEntryRow, 'place' | 'conversationId' | 'readBy' | 'type' | 'authorId'>;
type Listener = { viewer: SignedIn; response: Response; isAtDesk: boolean };
type Wrote = { conversationId: string; personId: string; name: string; at: number; readBy: 'all' | 'agents' };

/** Tells browsers which of their conversations changed, who is writing, and the offers who is there. */
export class ConversationWire {
  private readonly listeners = new Set<Listener>();
  private writingSeen = 0;
  private readonly heartbeat: NodeJS.Timeout;
  private readonly follower: Follower<Fresh>;
  private readonly offers: Loop;

  constructor(private readonly listo: Listo) {
    const { log, db } = listo;
    this.offers = startOffers(listo);
    this.heartbeat = setInterval(() => void this.seen().catch(() => undefined), SEEN_MS).unref();
    this.follower = new Follower<Fresh>({
      ...{ everyMs: LOOK_MS, log, numberOf: ({ place }) => place },
      isWatched: () => this.listeners.size > 0,
      read: (after, limit) =>
        db.select(
          'SELECT place, conversationId, readBy, type, authorId FROM conversation_entries WHERE place > :after ORDER BY place LIMIT :limit',
          { after, limit },
        ),
      pass: (rows) => this.pass(rows),
    });
  }

  /** Something was committed. */
  wake(): void {
    this.offers.wake();
    this.follower.look();
  }

  async join(viewer: SignedIn, response: Response, isAtDesk: boolean): Promise<void> {
    beginStream(response);
    if (this.listeners.size === 0) {
      const [row] = await this.listo.db.select<{ place: number }>(
        'SELECT COALESCE(MAX(place), 0) AS place FROM conversation_entries',
      );
      this.follower.begin(row!.place);
      this.writingSeen = this.listo.clock.now();
    }
    const listener = { viewer, response, isAtDesk };
    this.listeners.add(listener);
    response.on('close', () => this.listeners.delete(listener));
    // Who reads anew on this word misses nothing: what comes from now on is sent.
    response.write('event: ready\ndata: {}\n\n');
    if (isAtDesk) {
      await this.seen();
      this.offers.wake();
    }
  }

  /** Ends the streams; browsers come back to another process. */
  end(): void {
    this.listeners.forEach(({ response }) => response.end());
  }

  async stop(): Promise<void> {
    clearInterval(this.heartbeat);
    this.end();
    await this.offers.stop();
    await this.follower.stop();
  }

  /** Notes whose Desk is open: what they have and are offered is theirs as long as it is. */
  private async seen(): Promise<void> {
    this.listeners.forEach(({ response }) => sendPiece(response, ':\n\n'));
    const ids = [
      ...new Set([...this.listeners].filter(({ isAtDesk }) => isAtDesk).map(({ viewer }) => viewer.id)),
    ];
    if (ids.length === 0) return;
    await this.listo.db.run('UPDATE chat_agents SET seenAt = :now WHERE personId IN (:ids)', {
      now: this.listo.clock.now(),
      ids,
    });
  }

  private async pass(fresh: Fresh[]): Promise<void> {
    const { select, tables } = this.listo.db;
    const writing = await select<Wrote>(
      `SELECT w.conversationId, w.personId, w.at, w.readBy, p.name FROM conversation_writing w JOIN people p ON p.id = w.personId WHERE w.at > :seen`,
      { seen: this.writingSeen },
    );
    this.writingSeen = Math.max(this.writingSeen, ...writing.map(({ at }) => at));
    const ids = [...new Set([...fresh, ...writing].map(({ conversationId }) => conversationId))];
    if (ids.length === 0) return;
    const lines = await tables.chatLines.find({});
    for (const conversation of await tables.conversations.find({ id: ids })) {
      const line = lines.find(({ id }) => id === conversation.lineId);
      const isOfIt = ({ conversationId }: { conversationId: string }): boolean =>
        conversationId === conversation.id;
      for (const listener of this.listeners) {
        const side = line ? sideOf(listener.viewer, conversation, line) : null;
        if (side !== null)
          tell(listener, {
            side,
            id: conversation.id,
            fresh: {
              fresh: fresh.filter(isOfIt),
              writing: writing.filter(isOfIt),
            },
          });
      }
    }
  }
}

/** Tells a browser what of a conversation's news its side may read. */
function tell(
  { viewer, response }: Listener,
  {
    side,
    id,
    fresh: { fresh, writing },
  }: { side: Side; id: string; fresh: { fresh: Fresh[]; writing: Wrote[] } },
): void {
  const isRead = ({ readBy }: { readBy: string }): boolean => readBy === 'all' || side === 'agent';
  const own = fresh.filter(isRead);
  if (own.length > 0) {
    const words = own.findLast(({ type }) => type === 'words');
    const event = { id, by: words?.authorId ?? null, isWords: words !== undefined, side };
    sendPiece(response, `data: ${JSON.stringify(event)}\n\n`);
  }
  for (const { personId, name, readBy } of writing.filter(isRead))
    if (personId !== viewer.id)
      sendPiece(response, `event: writing\ndata: ${JSON.stringify({ id, name, readBy })}\n\n`);
}
