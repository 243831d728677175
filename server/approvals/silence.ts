import type { Transaction } from 'sequelize';
import { parseDuration } from '../../core/calendar';
import { append } from '../journal/append';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';
import type { TimerRow } from '../timers/model';
import { definitionOf } from '../catalogue/versions';
import { findTicketVoters } from './ask';
import type { ApprovalRow, AskRow } from './model';
import { castVote, settleVotes } from './vote';

type Listened = Pick<AskRow, 'id' | 'silentSince'> & Pick<ApprovalRow, 'silence'>;

/** Looks at an ask again once nothing has been said for as long as its step allows, on the hours of the ticket's team. */
export async function listenFor(
  listo: Listo,
  tx: Transaction,
  { number, teamId }: Pick<TicketRecord, 'number' | 'teamId'>,
  { id, silence, silentSince }: Listened,
): Promise<void> {
  if (!silence || silentSince === null) return;
  const team = await listo.db.tables.teams.findOne({ id: teamId }, tx);
  const calendar = (await listo.calendars.getAll(tx))[team?.calendarId ?? ''];
  if (!calendar) return;
  const at = calendar.addWorking(silentSince, parseDuration(silence.after, calendar.spec));
  await listo.db.tables.timers.remove({ ticketNumber: number, kind: 'askSilent', ref: id }, tx);
  await listo.db.tables.timers.insert({ ticketNumber: number, kind: 'askSilent', ref: id, at }, tx);
}

type Silent = { ticket: TicketRecord; approval: ApprovalRow; ask: AskRow };

async function note(
  listo: Listo,
  tx: Transaction,
  { approval, ask }: Silent,
  type: string,
  personId: string,
): Promise<void> {
  await append(listo, tx, {
    ...{ actorId: null, via: 'timer', type, ticketNumber: approval.ticketNumber },
    ...{ work: `approval:${approval.id}`, audience: 'requester' },
    data: { approvalId: approval.id, askId: ask.id, personId, fromId: ask.askedId, isLater: true },
  });
}

async function remind(listo: Listo, tx: Transaction, silent: Silent): Promise<void> {
  const { ticket, approval, ask } = silent;
  const reminders = ask.reminders + 1;
  const silentSince = listo.clock.now();
  await listo.db.tables.asks.update({ id: ask.id }, { reminders, silentSince }, tx);
  await note(listo, tx, silent, 'askReminded', ask.askedId);
  if (reminders < (approval.silence!.most ?? Infinity))
    await listenFor(listo, tx, ticket, { id: ask.id, silence: approval.silence, silentSince });
}

/** With a place gone, those who have said something may be enough. */
async function settleWithout(listo: Listo, tx: Transaction, approval: ApprovalRow): Promise<void> {
  const outcome = await settleVotes(listo, tx, approval);
  if (outcome === 'open') return;
  await append(listo, tx, {
    ...{ actorId: null, via: 'timer', type: 'decided', ticketNumber: approval.ticketNumber },
    ...{ work: `approval:${approval.id}`, audience: 'requester' },
    changes: { outcome: { from: 'open', to: outcome } },
    data: {
      approvalId: approval.id,
      outcome,
      words: '',
      decision: outcome === 'approved' ? 'approve' : 'decline',
    },
  });
}

/** The voter's manager comes in their place; where that is a voter already, the place goes. */
async function passUp(listo: Listo, tx: Transaction, silent: Silent): Promise<void> {
  const { ticket, approval, ask } = silent;
  const { tables } = listo.db;
  const voter = await tables.people.findOne({ id: ask.voterId }, tx);
  const service = await definitionOf(listo, ticket, tx);
  const [next] = voter?.managerId
    ? await findTicketVoters(listo, tx, ticket, service, [{ person: voter.managerId }])
    : [];
  if (!next || next.voter === ask.voterId) return remind(listo, tx, silent);
  const others = await tables.asks.find({ approvalId: approval.id }, { transaction: tx });
  if (others.some(({ voterId }) => voterId === next.voter)) {
    await tables.asks.remove({ id: ask.id }, tx);
    await note(listo, tx, silent, 'askPassedUp', next.by);
    return settleWithout(listo, tx, approval);
  }
  const now = listo.clock.now();
  await tables.asks.update(
    { id: ask.id },
    { voterId: next.voter, askedId: next.by, reason: 'oneUp', askedAt: now, silentSince: now, reminders: 0 },
    tx,
  );
  await note(listo, tx, silent, 'askPassedUp', next.by);
  await listenFor(listo, tx, ticket, { id: ask.id, silence: approval.silence, silentSince: now });
}

async function act(listo: Listo, tx: Transaction, silent: Silent): Promise<void> {
  const { then } = silent.approval.silence!;
  switch (then) {
    case 'remind':
      return remind(listo, tx, silent);
    case 'passUp':
      return passUp(listo, tx, silent);
    case 'approve':
    case 'decline':
      await castVote(listo, tx, silent.approval, silent.ask, {
        ...{ decision: then, byId: null, words: '', via: 'timer', how: 'silence' },
      });
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
    if (ask.questionAt === null) await act(listo, tx, { ticket, approval, ask });
  }
}
