import type { Deed } from '../../contract/bulk';
import { fillReadyText } from '../readyTexts/fill';
import { changeFactsWithin } from '../tickets/changeFacts';
import { writeWithin } from '../tickets/messages';
import { moveWithin } from '../tickets/move';
import type { BulkItemRow } from './model';
import type { WorkOfViewer } from '../unitOfWork';

/** Does it to one ticket, judged as if it were done to that one alone. */
export async function doDeed(
  { listo, tx, viewer }: WorkOfViewer,
  deed: Deed,
  { number, version }: Pick<BulkItemRow, 'number' | 'version'>,
): Promise<void> {
  switch (deed.kind) {
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
