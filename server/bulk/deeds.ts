import { fillReadyText } from '../readyTexts/fill';
import { changeFactsWithin } from '../tickets/changeFacts';
import { writeWithin } from '../tickets/messages';
import { moveWithin } from '../tickets/move';
import type { BulkItemRow, BulkJobRow } from './model';
import type { WorkOfViewer } from '../unitOfWork';

/** Does it to one ticket, judged as if it were done to that one alone. */
export async function doDeed(
  { listo, tx, viewer }: WorkOfViewer,
  deed: Exclude<BulkJobRow['deed'], { kind: 'undo' }>,
  { number, version }: Pick<BulkItemRow, 'number' | 'version'>,
): Promise<void> {
  switch (deed.kind) {
    case 'tie':
      await listo.ports.bulk.tie({ listo, tx, viewer }, deed.noticeId, number);
      return;
    case 'finishNotice':
      await listo.ports.bulk.finishWith({ listo, tx, viewer }, deed.words, { number, version });
      return;
    case 'move':
      await moveWithin({ listo, tx, viewer }, number, {
        move: {
          name: deed.name,
          by: 'agent',
          version,
          input: deed.input,
        },
      });
      return;
    case 'facts':
      await changeFactsWithin({ listo, tx, viewer }, number, { version, ...deed.facts });
      return;
    case 'words': {
      const text = await fillReadyText({ listo, viewer }, number, deed.text);
      await writeWithin({ listo, tx, viewer }, number, { text, readBy: deed.readBy, links: [], fileIds: [] });
    }
  }
}
