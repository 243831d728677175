import type { Consumer } from '../journal/consumer';
import { makeMove } from '../tickets/move';

/** Lets a ticket go on once its approval is decided. */
export const decidingConsumer: Consumer = {
  name: 'deciding',
  async handle(listo, entries, tx) {
    const { tables } = listo.db;
    for (const { type, ticketNumber, data } of entries) {
      if (type !== 'decided' || data.outcome === 'open') continue;
      const ticket = await tables.tickets.findOne({ number: ticketNumber! }, tx, true);
      // Withdrawn meanwhile: nothing goes on.
      if (ticket?.state !== 'held' || ticket.heldFor !== 'approval') continue;
      const name = data.outcome === 'approved' ? 'grant' : 'decline';
      await makeMove(listo, tx, ticket, { name, by: 'system', actorId: null, via: 'rule', input: {} });
    }
  },
};
