import type { TicketPorts } from '../tickets/ports';
import { makeMove } from '../tickets/move';

/** What could not wait is agreed to when it is over: its ticket is done with it. */
export const onWorkMoved: TicketPorts['moved'] = async ({ listo, tx }, ticket, move) => {
  if (move !== 'grant' || ticket.kind !== 'change') return;
  const work = await listo.db.tables.works.findOne({ ticketNumber: ticket.number }, tx);
  if (work?.outcome == null) return;
  const by = { by: 'system', actorId: null, via: 'rule' } as const;
  await makeMove({ listo, tx }, ticket, { ...by, name: 'finish', input: { solution: work.review || '—' } });
};
