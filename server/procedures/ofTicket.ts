import type { Transaction } from 'sequelize';
import { chooseProcedure } from '../../core/procedures';
import { change, type Actor } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import type { Listo } from '../listo';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { requireTicket } from '../tickets/guard';
import type { TicketRecord } from '../tickets/model';
import { recordChange } from '../tickets/record';
import type { ProcedureRow } from './model';

/** How a ticket is done: as the team that has it does its service or its kind of work. */
async function findProcedure(
  { db }: Listo,
  { teamId, serviceId, kind }: TicketRecord,
  tx?: Transaction,
): Promise<ProcedureRow | null> {
  const ofTeam = await db.tables.procedures.find({ teamId }, tx ? { transaction: tx } : {});
  return chooseProcedure(ofTeam, { serviceId, kind });
}

export async function readOfTicket(listo: Listo, viewer: SignedIn, number: number) {
  const { ticket } = await requireTicket({ listo, viewer }, { number, action: 'note' });
  const procedure = await findProcedure(listo, ticket);
  const ticks = await listo.db.tables.procedureTicks.find({ ticketNumber: number });
  const people = await readPeople(
    listo,
    ticks.map(({ personId }) => personId),
  );
  return {
    procedure,
    ticks: ticks.map(({ stepId, personId, at }) => ({ stepId, at, by: people.get(personId) ?? null })),
  };
}

/** Ticks a step off, or takes that back; the journal keeps who did. */
export function tickStep(
  listo: Listo,
  { viewer, actor, number, stepId }: { viewer: SignedIn; actor: Actor; number: number; stepId: string },
  isDone: boolean,
): Promise<{ ok: true }> {
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'note' });
    const procedure = await findProcedure(listo, ticket, tx);
    const step = procedure?.steps.find(({ id }) => id === stepId);
    if (!step) throw new ProblemError('stale');
    const removed = await tables.procedureTicks.remove({ ticketNumber: number, stepId }, tx);
    const at = listo.clock.now();
    if (isDone)
      await tables.procedureTicks.insert({ ticketNumber: number, stepId, personId: viewer.id, at }, tx);
    if (removed > 0 === isDone) return OK;
    await recordChange({ listo, tx }, ticket, {
      changes: {},
      entry: {
        ...{ type: isDone ? 'procedureTicked' : 'procedureUnticked', actorId: viewer.id, via: 'desk' },
        ...{ audience: 'team', data: { stepId, name: step.name } },
      },
    });
    return OK;
  });
}
