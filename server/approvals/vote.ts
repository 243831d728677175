import { decideStep, type StepOutcome, type Vote } from '../../core/approvals';
import type { Door } from '../../core/tickets';
import { append } from '../journal/append';
import type { ApprovalRow, AskRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

export type Say = {
  decision: 'approve' | 'decline';
  /** Who says it; null: it follows from their silence. */
  byId: string | null;
  words: string;
  via: Door | 'rule' | 'timer';
  how: AskRow['how'];
};

function toVotes(asks: AskRow[]): Vote[] {
  return asks.flatMap(({ voterId, decidedById, decision, decidedAt }) =>
    decision && decidedAt !== null
      ? [{ voter: voterId, by: decidedById ?? voterId, decision, at: decidedAt }]
      : [],
  );
}

/** What the votes that there are make of an open approval; kept where it is decided. */
export async function settleVotes(
  { listo, tx }: UnitOfWork,
  { id, needs, declineBy }: ApprovalRow,
): Promise<StepOutcome['outcome']> {
  const { tables } = listo.db;
  const asks = await tables.asks.find({ approvalId: id }, { transaction: tx, order: ['askedAt', 'id'] });
  const voters = asks.map(({ voterId }) => voterId);
  const { outcome } = decideStep(needs, declineBy, voters, toVotes(asks));
  if (outcome !== 'open')
    await tables.approvals.update({ id }, { outcome, decidedAt: listo.clock.now() }, tx);
  return outcome;
}

/**
 * Records what someone says to an ask of an open approval, and what that makes of it. Whether it decides the approval
 * is core's to say; what follows is the journal's.
 */
export async function castVote(
  { listo, tx }: UnitOfWork,
  { approval, ask }: { approval: ApprovalRow; ask: AskRow },
  { decision, byId, words, via, how }: Say,
): Promise<ApprovalRow['outcome']> {
  const { tables } = listo.db;
  const now = listo.clock.now();
  await tables.asks.update(
    { id: ask.id },
    {
      ...{ decision, decidedById: byId, decidedAt: now, words: words.trim() || null, how },
      questionAt: null,
    },
    tx,
  );
  const outcome = await settleVotes({ listo, tx }, approval);
  await append(
    { listo, tx },
    {
      ...{ at: now, actorId: byId, via, type: 'decided', ticketNumber: approval.ticketNumber },
      ...{ work: `approval:${approval.id}`, audience: 'requester' },
      changes: outcome === 'open' ? {} : { outcome: { from: 'open', to: outcome } },
      data: {
        ...{ askId: ask.id, approvalId: approval.id, decision, outcome, words: words.trim() },
        ...(how && { how, voterId: ask.voterId }),
      },
    },
  );
  return outcome;
}
