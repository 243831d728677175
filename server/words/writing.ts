import { OK } from '../http/serve';
import { requireTicket } from '../tickets/guard';
import type { ReadBy } from '../tickets/mentioned';
import type { Viewing } from '../unitOfWork';

const KEPT_MS = 60_000;

/** Notes that someone is writing; the live streams of all processes pass it on. */
export async function noteWriting(
  { listo, viewer }: Viewing,
  number: number,
  readBy: ReadBy,
): Promise<{ ok: true }> {
  await requireTicket({ listo, viewer }, { number, action: readBy === 'team' ? 'note' : 'read' });
  // Not the application's clock: it only says what is newer, across processes.
  const at = Date.now();
  await listo.db.run(
    'REPLACE INTO writing (ticketNumber, personId, readBy, at) VALUES (:number, :id, :readBy, :at)',
    {
      ...{ number, id: viewer.id, readBy, at },
    },
  );
  await listo.db.run('DELETE FROM writing WHERE at < :before', { before: at - KEPT_MS });
  listo.wake();
  return OK;
}
