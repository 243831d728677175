import { ProblemError } from '../http/problems';
import type { FileRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

/** Ties files that a person uploaded to the ticket, and to the words, that they are sent with. */
export async function keepFiles(
  { listo, tx }: UnitOfWork,
  { personId, fileIds }: { personId: string; fileIds: string[] },
  to: Pick<FileRow, 'ticketNumber' | 'messageId'>,
): Promise<void> {
  const ids = [...new Set(fileIds)];
  const kept = await listo.db.tables.files.update({ id: ids, personId, ticketNumber: null }, to, tx);
  if (kept !== ids.length)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'fileIds', code: 'notAChoice' }] });
}
