import express, { Router } from 'express';
import { chatEventSchema } from '../../contract/rooms';
import type { Listo } from '../listo';
import type { ChatRun } from './chat';
import { findChat } from './access';
import { isSigned } from '../http/signing';

/** What is no JSON is nothing that fits. */
function parseJson(body: string): unknown {
  try {
    return JSON.parse(body) as unknown;
  } catch {
    return null;
  }
}

/** Larger than any message: what is longer than the thread takes is kept as a file. */
const LIMIT = '4mb';

/**
 * Takes in what the workplace chat tells: signed, kept before it is answered, and once, however often it comes. A request
 * that someone recorded and sends again is old, or it is known.
 */
export function createEventRoutes(listo: Listo, chat: ChatRun): Router {
  const router = Router();
  router.post('/', express.text({ type: () => true, limit: LIMIT }), async (request, response) => {
    const access = await findChat(listo);
    const headers = Object.fromEntries(
      Object.entries(request.headers).map(([name, value]) => [name, String(value)]),
    );
    const body = typeof request.body === 'string' ? request.body : '';
    if (!access || !isSigned(access.secret, body, headers)) {
      response.status(401).json({ error: 'not signed' });
      return;
    }
    const event = chatEventSchema.safeParse(parseJson(body));
    if (!event.success) {
      response.status(422).json({ error: event.error.issues.map(({ path }) => path.join('.')).join(', ') });
      return;
    }
    const { id, roomId, seq } = event.data;
    await listo.db.run(
      `INSERT IGNORE INTO chat_in (id, roomId, seq, receivedAt, body, state, tries) VALUES (:id, :roomId, :seq, :now, :body, 'waiting', 0)`,
      { id, roomId, seq, now: listo.clock.now(), body: JSON.stringify(event.data) },
    );
    response.json({ ok: true });
    chat.wake();
  });
  return router;
}
