import { append } from '../journal/append';
import { makeMove } from '../tickets/move';
import type { UnitOfWork } from '../unitOfWork';

/** Work of someone who is away, or has left, comes back to its team; the record says why. */
export async function giveBack(
  { listo, tx }: UnitOfWork,
  { personId, numbers }: { personId: string; numbers: number[] },
  type: 'cameBack' | 'leftBehind',
): Promise<void> {
  for (const number of numbers) {
    const ticket = (await listo.db.tables.tickets.findOne({ number }, tx, true))!;
    if (ticket.assigneeId !== personId) continue;
    await append(
      { listo, tx },
      {
        ...{ actorId: null, via: 'rule', type, ticketNumber: number, audience: 'team', data: { personId } },
      },
    );
    await makeMove({ listo, tx }, ticket, {
      ...{ name: 'give', by: 'system', actorId: null, via: 'rule' },
      input: { teamId: ticket.teamId, groupId: ticket.groupId, assigneeId: null },
    });
  }
}
