import { append } from '../journal/append';
import type { AskRow } from './model';
import { findInstead, passOn } from './passOn';
import type { UnitOfWork } from '../unitOfWork';

const OF_MEMBERS = new Set<AskRow['reason']>(['team', 'lead']);

/**
 * What waits for the decision of someone who left, or who is away as of now, is asked of whoever decides in their place.
 * One of a team who left needs nobody in their place while others of those who are asked are there.
 */
export async function passOnFrom(
  { listo, tx }: UnitOfWork,
  personId: string,
  type: 'askLeft' | 'askAway',
): Promise<void> {
  const { tables } = listo.db;
  const waiting = await listo.db.select<Pick<AskRow, 'id' | 'ticketNumber' | 'approvalId'>>(
    `SELECT a.id, a.ticketNumber, a.approvalId FROM asks a JOIN approvals ap ON ap.id = a.approvalId AND ap.outcome = 'open'
     WHERE (a.askedId = :personId OR a.voterId = :personId) AND a.decision IS NULL ORDER BY a.askedAt, a.id`,
    { personId },
    tx,
  );
  for (const { id, ticketNumber, approvalId } of waiting) {
    const ticket = await tables.tickets.findOne({ number: ticketNumber }, tx, true);
    const approval = await tables.approvals.findOne({ id: approvalId }, tx, true);
    const ask = await tables.asks.findOne({ id }, tx);
    // Decided meanwhile, also by an ask before this one.
    if (!ticket || approval?.outcome !== 'open' || ask?.decision !== null) continue;
    const asking = { ticket, approval, ask };
    const passing = { type, via: 'rule' } as const;
    const asked = await tables.asks.find({ approvalId }, { transaction: tx });
    if (type === 'askLeft' && ask.voterId === personId && OF_MEMBERS.has(ask.reason) && asked.length > 1) {
      await passOn({ listo, tx }, asking, { next: null, how: passing });
      continue;
    }
    const next = await findInstead({ listo, tx }, ticket, ask.voterId);
    if (next && (next.voter !== ask.voterId || next.by !== ask.askedId))
      await passOn({ listo, tx }, asking, { next, how: passing });
    else if (!next)
      await append(
        { listo, tx },
        {
          ...{ actorId: null, via: 'rule', type: 'noApprover', ticketNumber, audience: 'team' },
        },
      );
  }
}
