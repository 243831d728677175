import { findVoters, type FoundVoter } from '../../core/approvals';
import { definitionOf } from '../catalogue/versions';
import { append } from '../journal/append';
import type { Via } from '../../core/journal';
import type { TicketRecord } from '../tickets/model';
import { readOrganisation } from './directory';
import type { ApprovalRow, AskRow } from './model';
import { listenFor } from './listen';
import { settleVotes } from './vote';
import type { UnitOfWork } from '../unitOfWork';

export type Asking = { ticket: TicketRecord; approval: ApprovalRow; ask: AskRow };
type Passing = {
  /** Silent too long, left, or away as of now. */
  type: 'askPassedUp' | 'askLeft' | 'askAway';
  via: Via;
};

/** Who decides in place of someone, as the organisation is now: they or their delegate, or whoever comes next. */
export async function findInstead(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  personId: string,
): Promise<FoundVoter | undefined> {
  const service = await definitionOf(listo, ticket, tx);
  const found = await readOrganisation({ listo, tx }, ticket, { service, wanted: [{ person: personId }] });
  return findVoters(found.refs, found.asked, found.directory, found.absences, found.now).voters[0];
}

/** With a place gone, those who have said something may be enough. */
async function settleWithout({ listo, tx }: UnitOfWork, approval: ApprovalRow, via: Via): Promise<void> {
  const outcome = await settleVotes({ listo, tx }, approval);
  if (outcome === 'open') return;
  await append(
    { listo, tx },
    {
      ...{ actorId: null, via, type: 'decided', ticketNumber: approval.ticketNumber },
      ...{ work: `approval:${approval.id}`, audience: 'requester' },
      changes: { outcome: { from: 'open', to: outcome } },
      data: {
        approvalId: approval.id,
        outcome,
        words: '',
        decision: outcome === 'approved' ? 'approve' : 'decline',
      },
    },
  );
}

/** Someone else is asked in place of who was; where their say counts already, the place goes. */
export async function passOn(
  { listo, tx }: UnitOfWork,
  { ticket, approval, ask }: Asking,
  { next, how: { type, via } }: { next: FoundVoter | null; how: Passing },
): Promise<void> {
  const { tables } = listo.db;
  const others = await tables.asks.find({ approvalId: approval.id }, { transaction: tx });
  const isAskedAlready = others.some(({ id, voterId }) => id !== ask.id && voterId === next?.voter);
  const goes = next === null || isAskedAlready;
  const now = listo.clock.now();
  if (goes) await tables.asks.remove({ id: ask.id }, tx);
  else
    await tables.asks.update(
      { id: ask.id },
      {
        ...{ voterId: next.voter, askedId: next.by, askedAt: now, silentSince: now, reminders: 0 },
        ...(next.voter !== ask.voterId && { reason: next.reason, questionAt: null }),
      },
      tx,
    );
  await append(
    { listo, tx },
    {
      ...{ actorId: null, via, type, ticketNumber: approval.ticketNumber },
      ...{ work: `approval:${approval.id}`, audience: 'requester' },
      data: {
        ...{ approvalId: approval.id, askId: ask.id, fromId: ask.askedId },
        // Where the place goes, nobody is told anew.
        ...(!goes && { personId: next.by }),
      },
    },
  );
  if (goes) return settleWithout({ listo, tx }, approval, via);
  await listenFor({ listo, tx }, ticket, { id: ask.id, silence: approval.silence, silentSince: now });
}
