import type { Door } from '../../core/tickets';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import { castVote } from './vote';

type Decision = { decision: 'approve' | 'decline'; words: string };

/** Says yes or no to an ask, by whichever door it comes; the first that comes counts. */
export async function decide(
  listo: Listo,
  { personId, actor, via = 'portal' }: { personId: string; actor: Actor; via?: Door },
  { askId, decision: { decision, words } }: { askId: string; decision: Decision },
): Promise<{ ok: true }> {
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const mine = await tables.asks.findOne({ id: askId }, tx);
    if (!mine || (mine.askedId !== personId && mine.voterId !== personId)) throw new ProblemError('notFound');
    await tables.tickets.findOne({ number: mine.ticketNumber }, tx, true);
    const approval = (await tables.approvals.findOne({ id: mine.approvalId }, tx, true))!;
    const ask = (await tables.asks.findOne({ id: askId }, tx))!;
    if (approval.outcome !== 'open' || ask.decision !== null) throw new ProblemError('alreadyDecided');
    await castVote({ listo, tx }, { approval, ask }, { decision, byId: personId, words, via, how: null });
    return OK;
  });
}
