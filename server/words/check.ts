import { findChecks, setCheck } from '../../core/words';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import { recordChange } from '../tickets/record';

/** Ticks off a line of a checklist, or takes that back; the journal keeps who did. */
export async function setCheckOf(
  listo: Listo,
  { viewer, actor, number, messageId }: { viewer: SignedIn; actor: Actor; number: number; messageId: string },
  { index, text, isDone }: { index: number; text: string; isDone: boolean },
): Promise<{ ok: true }> {
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'note' });
    const message = await tables.messages.findOne({ id: messageId, ticketNumber: number }, tx, true);
    if (message?.format !== 'rich') throw new ProblemError('notFound');
    const line = findChecks(message.text)[index];
    if (line?.text !== text) throw new ProblemError('stale');
    if (line.isDone === isDone) return OK;
    await tables.messages.update({ id: messageId }, { text: setCheck(message.text, index, isDone) }, tx);
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: {
        ...{
          type: isDone ? 'ticked' : 'unticked',
          actorId: viewer.id,
          via: 'desk',
          audience: message.readBy,
        },
        data: { of: messageId, said: text.slice(0, 200) },
      },
    });
    return OK;
  });
}
