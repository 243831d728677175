import type { Transaction } from 'sequelize';
import { createRights, may, type GuardedTicket, type TicketAction, type Viewer } from '../../core/rights';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { TicketRecord } from './model';

export type Guarded = { ticket: TicketRecord; guarded: GuardedTicket };

/** A ticket with what rights on it rest on, or null. Inside a transaction the ticket is locked. */
export async function findGuarded(listo: Listo, number: number, tx?: Transaction): Promise<Guarded | null> {
  const { tables } = listo.db;
  const reading = tables.tickets.findOne({ number }, tx, tx !== undefined);
  // What is locked is locked before the rest is read.
  if (tx) await reading;
  const within = tx ? { transaction: tx } : {};
  const [ticket, followers, asks, steps] = await Promise.all([
    reading,
    tables.followers.find({ ticketNumber: number }, within),
    tables.asks.find({ ticketNumber: number }, within),
    tables.planSteps.find(
      { ticketNumber: number, state: ['active', 'done', 'failed'] },
      { ...within, attributes: ['teamId'] },
    ),
  ]);
  if (!ticket) return null;
  const idsOf = (role: string) =>
    followers.filter((row) => row.role === role).map(({ personId }) => personId);
  const team = await tables.teams.findOne({ id: ticket.teamId }, tx);
  const readEveryTeam = async () => (await tables.teams.find({}, within)).map(({ id }) => id);
  const guarded = {
    requesterId: ticket.requesterId,
    raisedById: ticket.raisedById,
    teamId: ticket.teamId,
    givenOnBy: team?.givenOnBy === null ? await readEveryTeam() : (team?.givenOnBy ?? []),
    isConfidential: ticket.isConfidential,
    alsoToldIds: idsOf('alsoTold'),
    collaboratorIds: idsOf('collaborator'),
    approverIds: asks.flatMap(({ askedId, voterId }) => [askedId, voterId]),
    stepTeamIds: steps.flatMap(({ teamId }) => teamId ?? []),
  };
  return { ticket, guarded };
}

export function listRights(
  viewer: Viewer,
  guarded: GuardedTicket,
  actions: readonly TicketAction[],
): TicketAction[] {
  const rights = createRights(viewer);
  return actions.filter((action) => may(rights, action, guarded));
}

/**
 * The ticket, if the viewer may do this to it. One that they may not even read is answered like one that is not
 * there, so that numbers cannot be guessed.
 */
export async function requireTicket(
  { listo, viewer, tx }: { listo: Listo; viewer: Viewer; tx?: Transaction },
  { number, action }: { number: number; action: TicketAction },
): Promise<Guarded> {
  const found = await findGuarded(listo, number, tx);
  const rights = createRights(viewer);
  if (!found || !may(rights, 'read', found.guarded)) throw new ProblemError('notFound');
  if (!may(rights, action, found.guarded)) throw new ProblemError('forbidden');
  return found;
}
