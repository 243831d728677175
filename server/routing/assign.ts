import { needOf, route, ROUTED_BY_HAND, type Routed } from '../../core/routing';
import { append } from '../journal/append';
import type { TeamRow } from '../people/model';
import type { TicketRecord } from '../tickets/model';
import { makeMove } from '../tickets/move';
import { recordChange } from '../tickets/record';
import type { TimerHandler } from '../timers/runner';
import { readMembers } from './candidates';
import { giveBack } from './giveBack';
import type { UnitOfWork } from '../unitOfWork';

/** So many of a team's waiting tickets are looked at when someone becomes free. */
const MOST_WAITING = 50;

async function findRouting({ listo, tx }: UnitOfWork, teamId: string): Promise<TeamRow | null> {
  return listo.db.tables.teams.findOne({ id: teamId }, tx);
}

/** Who would get a ticket now; within a group that has members, its members alone. */
async function decide({ listo, tx }: UnitOfWork, team: TeamRow, ticket: TicketRecord): Promise<Routed> {
  const settings = team.routing ?? ROUTED_BY_HAND;
  const members = await readMembers({ listo, tx }, team, settings);
  const grouped = members.filter(({ groupId }) => ticket.groupId !== null && groupId === ticket.groupId);
  const candidates = grouped.length > 0 ? grouped : members;
  const last = [...members].sort((a, b) => (b.lastGivenAt ?? -1) - (a.lastGivenAt ?? -1))[0];
  const after = last?.lastGivenAt === null ? null : (last?.id ?? null);
  return route(settings.way, candidates, needOf(settings, ticket), after);
}

/**
 * Finds a person for a ticket that waits for one, by its team's way; says on the record why it is them.
 * @returns whether someone got it
 */
export async function assign({ listo, tx }: UnitOfWork, number: number): Promise<boolean> {
  const { tables } = listo.db;
  const ticket = await tables.tickets.findOne({ number }, tx, true);
  if (!ticket || ticket.state !== 'received' || ticket.assigneeId !== null) return false;
  const team = await findRouting({ listo, tx }, ticket.teamId);
  if (!team?.routing || team.routing.way === 'byHand') return false;
  const { personId, passedOver, ...why } = await decide({ listo, tx }, team, ticket);
  if (personId === null) return false;
  const now = listo.clock.now();
  await tables.members.update({ teamId: team.id, personId }, { lastGivenAt: now }, tx);
  const counts: Record<string, number> = {};
  for (const { why: reason } of passedOver) counts[reason] = (counts[reason] ?? 0) + 1;
  await recordChange({ listo, tx }, ticket, {
    changes: { assigneeId: personId },
    entry: {
      ...{ type: 'routed', actorId: null, via: 'rule', audience: 'team' },
      data: { personId, ...why, passedOver: counts },
    },
  });
  return true;
}

/** Gives out what waits in a team, in the order in which it should be moved, until nobody can have more. */
export async function assignWaiting({ listo, tx }: UnitOfWork, teamId: string): Promise<void> {
  const team = await findRouting({ listo, tx }, teamId);
  if (!team?.routing || team.routing.way === 'byHand') return;
  const waiting = await listo.db.select<{ number: number }>(
    "SELECT number FROM tickets WHERE teamId = :teamId AND state = 'received' AND assigneeId IS NULL ORDER BY moveBy, number LIMIT :most",
    { teamId, most: MOST_WAITING },
    tx,
  );
  for (const { number } of waiting) await assign({ listo, tx }, number);
}

/** Sets when a ticket goes on to the next line, if nobody has taken it up by then. */
export async function setGoingOn({ listo, tx }: UnitOfWork, number: number): Promise<void> {
  const { tables } = listo.db;
  const ticket = await tables.tickets.findOne({ number }, tx);
  const team = ticket && (await findRouting({ listo, tx }, ticket.teamId));
  await tables.timers.remove({ ticketNumber: number, kind: 'goesOn' }, tx);
  if (ticket?.state !== 'received' || !team?.routing?.goesOnAfter || !team.routing.next) return;
  const calendar = (await listo.calendars.getAll())[team.calendarId];
  if (!calendar) return;
  const at = calendar.addWorking(listo.clock.now(), team.routing.goesOnAfter * 60_000);
  await tables.timers.insert({ ticketNumber: number, kind: 'goesOn', ref: team.id, at }, tx);
}

/** What nobody has taken up in time goes to the next line, and the record says so. */
export const goOnToNextLine: TimerHandler = async (listo, timers, tx) => {
  const { tables } = listo.db;
  for (const { ticketNumber, ref } of timers) {
    const ticket = await tables.tickets.findOne({ number: ticketNumber }, tx, true);
    if (ticket?.state !== 'received' || ticket.teamId !== ref) continue;
    const team = await findRouting({ listo, tx }, ref);
    const { next, goesOnAfter } = team?.routing ?? ROUTED_BY_HAND;
    if (!next || goesOnAfter === null || (next.teamId === ticket.teamId && next.groupId === ticket.groupId))
      continue;
    await append(
      { listo, tx },
      {
        ...{ actorId: null, via: 'rule', type: 'wentOn', ticketNumber, audience: 'team' },
        data: { minutes: goesOnAfter },
      },
    );
    await makeMove({ listo, tx }, ticket, {
      ...{ name: 'give', by: 'system', actorId: null, via: 'rule' },
      input: { teamId: next.teamId, groupId: next.groupId, assigneeId: null },
    });
  }
};

/** The open work of someone whose absence begins comes back to its teams, where those route. */
export async function comeBack({ listo, tx }: UnitOfWork, personId: string): Promise<void> {
  const rows = await listo.db.select<{ number: number }>(
    `SELECT t.number FROM tickets t JOIN teams tm ON tm.id = t.teamId WHERE t.assigneeId = :personId AND t.state IN ('received', 'inWork')
       AND JSON_VALUE(tm.routing, '$.way') IN ('inTurn', 'leastLoaded', 'longestIdle') LIMIT 500`,
    { personId },
    tx,
  );
  const numbers = rows.map(({ number }) => number);
  await giveBack({ listo, tx }, { personId, numbers }, 'cameBack');
}
