import type { LocalText } from '../../core/forms';
import type { WorkOfViewer } from '../unitOfWork';

/** What the floors above do to one ticket of many. */
export type BulkPorts = {
  /** Ties it to a notice. @throws ProblemError */
  tie(work: WorkOfViewer, noticeId: string, number: number): Promise<void>;
  /** Marks it done in the words that ended the notice, in its requester's language. @throws ProblemError */
  finishWith(work: WorkOfViewer, words: LocalText, item: { number: number; version: number }): Promise<void>;
};
