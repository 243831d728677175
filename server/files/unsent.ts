import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { FileStore } from './store';

/** What someone may have lying that is not sent yet. */
const MOST_FILES = 100;
const MOST_BYTES = 250_000_000;
/** What was not sent by then goes. */
const KEPT_MS = 86_400_000;
const LOOK_MS = 600_000;
const AT_ONCE = 200;

const UNSENT = 'ticketNumber IS NULL AND conversationId IS NULL AND articleId IS NULL';

/** @throws ProblemError tooManyUnsent */
export async function refuseOverQuota({ db }: Listo, personId: string, size: number): Promise<void> {
  const [lying] = await db.select<{ count: number; bytes: number | string | null }>(
    `SELECT COUNT(*) AS count, SUM(size) AS bytes FROM files WHERE personId = :personId AND ${UNSENT}`,
    { personId },
  );
  if (lying!.count >= MOST_FILES || Number(lying!.bytes ?? 0) + size > MOST_BYTES)
    throw new ProblemError('tooManyUnsent');
}

/** Throws away files that were uploaded a day ago and never sent. @returns how many */
export async function forgetUnsent({ db, clock }: Listo, store: FileStore): Promise<number> {
  const old = await db.select<{ id: string }>(
    `SELECT id FROM files WHERE at < :before AND ${UNSENT} LIMIT ${AT_ONCE}`,
    { before: clock.now() - KEPT_MS },
  );
  for (const { id } of old) {
    const unsent = { ticketNumber: null, conversationId: null, articleId: null };
    // One that is sent at this moment stays.
    if ((await db.tables.files.remove({ id, ...unsent })) > 0) await store.remove(id);
  }
  return old.length;
}

/** Looks for them now and then until stopped. */
export function startForgetting(listo: Listo, store: FileStore): { stop(): void } {
  const timer = setInterval(
    () =>
      void forgetUnsent(listo, store).catch((err: unknown) =>
        listo.log.warn({ err }, 'unsent files stay for now'),
      ),
    LOOK_MS,
  ).unref();
  return { stop: () => clearInterval(timer) };
}
