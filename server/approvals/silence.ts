import type { Transaction } from 'sequelize';
import { append } from '../journal/append';
import type { Listo } from '../listo';
import type { TimerRow } from '../timers/model';
import { listenFor } from './listen';
import { findInstead, passOn, type Asking } from './passOn';
import { castVote } from './vote';
import type { UnitOfWork } from '../unitOfWork';

async function remind({ listo, tx }: UnitOfWork, silent: Asking): Promise<void> {
  const { ticket, approval, ask } = silent;
  const reminders = ask.reminders + 1;
  const silentSince = listo.clock.now();
  await listo.db.tables.asks.update({ id: ask.id }, { reminders, silentSince }, tx);
  await append(
    { listo, tx },
    {
      ...{ actorId: null, via: 'timer', type: 'askReminded', ticketNumber: approval.ticketNumber },
      ...{ work: `approval:${approval.id}`, audience: 'requester' },
      data: { approvalId: approval.id, askId: ask.id, personId: ask.askedId },
    },
  );
  if (reminders < (approval.silence!.most ?? Infinity))
    await listenFor({ listo, tx }, ticket, { id: ask.id, silence: approval.silence, silentSince });
}

/** The voter's manager comes in their place. */
async function passUp({ listo, tx }: UnitOfWork, silent: Asking): Promise<void> {
  const { ticket, ask } = silent;
  const voter = await listo.db.tables.people.findOne({ id: ask.voterId }, tx);
  const next = voter?.managerId ? await findInstead({ listo, tx }, ticket, voter.managerId) : undefined;
  if (!next || next.voter === ask.voterId) return remind({ listo, tx }, silent);
  return passOn({ listo, tx }, silent, {
    next: { ...next, reason: 'oneUp' },
    how: { type: 'askPassedUp', via: 'timer' },
  });
}

async function act({ listo, tx }: UnitOfWork, silent: Asking): Promise<void> {
  const { then } = silent.approval.silence!;
  switch (then) {
    case 'remind':
      return remind({ listo, tx }, silent);
    case 'passUp':
      return passUp({ listo, tx }, silent);
    case 'approve':
    case 'decline':
      await castVote(
        { listo, tx },
        { approval: silent.approval, ask: silent.ask },
        {
          ...{ decision: then, byId: null, words: '', via: 'timer', how: 'silence' },
        },
      );
  }
}

/** Those who have said nothing for too long. */
export async function hearSilence(
  listo: Listo,
  timers: Pick<TimerRow, 'ticketNumber' | 'ref'>[],
  tx: Transaction,
): Promise<void> {
  const { tables } = listo.db;
  for (const { ticketNumber, ref } of timers) {
    const ticket = await tables.tickets.findOne({ number: ticketNumber }, tx, true);
    const ask = await tables.asks.findOne({ id: ref }, tx);
    const approval = ask && (await tables.approvals.findOne({ id: ask.approvalId }, tx, true));
    // Who waits for an answer is not the one who is silent.
    if (!ticket || approval?.outcome !== 'open' || !approval.silence || ask?.decision !== null) continue;
    if (ask.questionAt === null) await act({ listo, tx }, { ticket, approval, ask });
  }
}
