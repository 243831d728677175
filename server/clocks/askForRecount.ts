import type { UnitOfWork } from '../unitOfWork';

/**
 * Asks for clocks of open work to be read anew, in the transaction of the change that makes it needed.
 * @param targetIds the promises whose going clocks may move; null: every clock, also those that may only now begin
 */
export async function askForRecount(
  { listo, tx }: UnitOfWork,
  why: string,
  targetIds: string[] | null = null,
): Promise<void> {
  await listo.db.tables.recounts.insert(
    {
      why: why.slice(0, 120),
      targetIds,
      afterNumber: 0,
      counted: 0,
      moved: 0,
      startedAt: listo.clock.now(),
      finishedAt: null,
    },
    tx,
  );
}
