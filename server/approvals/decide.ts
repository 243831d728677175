import { decideStep, type Vote } from '../../core/approvals';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { append } from '../journal/append';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { AskRow } from './model';

type Decision = { decision: 'approve' | 'decline'; words: string };

function toVotes(asks: AskRow[]): Vote[] {
  return asks.flatMap(({ voterId, decidedById, decision, decidedAt }) =>
    decision && decidedAt !== null ? [{ voter: voterId, by: decidedById!, decision, at: decidedAt }] : [],
  );
}

/** Says yes or no to an ask. Whether that decides the approval is core's to say; what follows is the journal's. */
export async function decide(
  listo: Listo,
  viewer: SignedIn,
  actor: Actor,
  askId: string,
  { decision, words }: Decision,
): Promise<{ ok: true }> {
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const mine = await tables.asks.findOne({ id: askId }, tx);
    if (!mine || (mine.askedId !== viewer.id && mine.voterId !== viewer.id))
      throw new ProblemError('notFound');
    const ticket = (await tables.tickets.findOne({ number: mine.ticketNumber }, tx, true))!;
    const approval = (await tables.approvals.findOne({ id: mine.approvalId }, tx, true))!;
    const ask = (await tables.asks.findOne({ id: askId }, tx))!;
    if (approval.outcome !== 'open' || ask.decision !== null) throw new ProblemError('alreadyDecided');
    const now = listo.clock.now();
    await tables.asks.update(
      { id: askId },
      { decision, decidedById: viewer.id, decidedAt: now, words: words.trim() || null },
      tx,
    );
    const asks = await tables.asks.find(
      { approvalId: approval.id },
      { transaction: tx, order: ['askedAt', 'id'] },
    );
    const { outcome } = decideStep(
      approval.needs,
      approval.declineBy,
      asks.map(({ voterId }) => voterId),
      toVotes(asks),
    );
    if (outcome !== 'open')
      await tables.approvals.update({ id: approval.id }, { outcome, decidedAt: now }, tx);
    await append(listo, tx, {
      at: now,
      actorId: viewer.id,
      via: 'portal',
      type: 'decided',
      ticketNumber: ticket.number,
      work: `approval:${approval.id}`,
      audience: 'requester',
      changes: outcome === 'open' ? {} : { outcome: { from: 'open', to: outcome } },
      data: { askId, approvalId: approval.id, decision, outcome, words: words.trim() },
    });
    return OK;
  });
}
