import type { Response } from 'express';
import type { Listo } from '../listo';
import { readSessions, rightsOf, type SignedIn } from './viewer';

/** So often it is looked whether those who listen may still do so. */
const LOOK_MS = 2_000;

type Watched = { sessionId: string; rights: string; readAnew?: () => Promise<SignedIn | null> };

/**
 * Ends the streams of sessions that are over, of people who have left, and of those whose rights have changed (their
 * browsers come back by themselves, under the rights they have then).
 */
export class StreamSessions {
  private readonly streams = new Map<Response, Watched>();
  private readonly timer: NodeJS.Timeout;

  constructor(private readonly listo: Listo) {
    this.timer = setInterval(() => void this.look().catch(() => undefined), LOOK_MS).unref();
  }

  /** @param readAnew who listens by then, where that is no session; null: nobody any more */
  watch(response: Response, viewer: SignedIn, readAnew?: Watched['readAnew']): void {
    const rights = rightsOf(viewer);
    this.streams.set(response, { sessionId: viewer.sessionId, rights, ...(readAnew && { readAnew }) });
    response.on('close', () => this.streams.delete(response));
  }

  /** @throws where the database is away: then nothing is known, and nothing is ended */
  async look(): Promise<void> {
    if (this.streams.size === 0) return;
    const ids = [...new Set([...this.streams.values()].map(({ sessionId }) => sessionId))];
    const viewers = await readSessions(this.listo, ids);
    for (const [response, { sessionId, rights, readAnew }] of [...this.streams]) {
      const viewer = readAnew ? await readAnew() : viewers.get(sessionId);
      if (viewer && rightsOf(viewer) === rights) continue;
      this.streams.delete(response);
      response.end();
      response.socket?.end();
    }
  }

  stop(): void {
    clearInterval(this.timer);
  }
}
