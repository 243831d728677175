import type { Door } from '../../core/tickets';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { append } from '../journal/append';
import type { Listo } from '../listo';
import { insertMessage } from '../tickets/messages';
import { recordChange } from '../tickets/record';
import type { TicketRecord } from '../tickets/model';
import { listenFor } from './listen';
import type { UnitOfWork } from '../unitOfWork';

/** Asks the requester something before deciding: on the thread, for all who read it. Nothing counts as silence until it is answered. */
export async function askBack(
  listo: Listo,
  { personId, actor, via = 'portal' }: { personId: string; actor: Actor; via?: Door },
  { askId, text }: { askId: string; text: string },
): Promise<{ messageId: string }> {
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const ask = await tables.asks.findOne({ id: askId }, tx);
    if (!ask || (ask.askedId !== personId && ask.voterId !== personId)) throw new ProblemError('notFound');
    const ticket = (await tables.tickets.findOne({ number: ask.ticketNumber }, tx, true))!;
    const approval = (await tables.approvals.findOne({ id: ask.approvalId }, tx))!;
    if (approval.outcome !== 'open' || ask.decision !== null) throw new ProblemError('alreadyDecided');
    const messageId = await insertMessage(
      { listo, tx },
      {
        ...{
          ticketNumber: ticket.number,
          authorId: personId,
          via,
          readBy: 'requester',
          isByTeam: true,
          text,
        },
      },
    );
    await tables.asks.update({ id: askId }, { questionAt: listo.clock.now() }, tx);
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: {
        ...{ type: 'questioned', actorId: personId, via, data: { messageId, askId } },
      },
    });
    return { messageId };
  });
}

/** The requester has answered: those who asked something may decide now. */
export async function answerQuestions({ listo, tx }: UnitOfWork, ticket: TicketRecord): Promise<void> {
  const { tables, select } = listo.db;
  const waiting = await select<{ id: string; approvalId: string; askedId: string }>(
    `SELECT a.id, a.approvalId, a.askedId FROM asks a JOIN approvals ap ON ap.id = a.approvalId AND ap.outcome = 'open'
     WHERE a.ticketNumber = :number AND a.questionAt IS NOT NULL AND a.decision IS NULL`,
    { number: ticket.number },
    tx,
  );
  for (const { id, approvalId, askedId } of waiting) {
    const silentSince = listo.clock.now();
    await tables.asks.update({ id }, { questionAt: null, silentSince }, tx);
    const approval = (await tables.approvals.findOne({ id: approvalId }, tx))!;
    await listenFor({ listo, tx }, ticket, { id, silence: approval.silence, silentSince });
    await append(
      { listo, tx },
      {
        ...{ actorId: null, via: 'rule', type: 'questionAnswered', ticketNumber: ticket.number },
        ...{ work: `approval:${approvalId}`, audience: 'requester' },
        data: { approvalId, askId: id, personId: askedId },
      },
    );
  }
}
