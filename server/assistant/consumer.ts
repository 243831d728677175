import type { Consumer } from '../journal/consumer';
import { goOnAfterDecision } from './talks';

/** A conversation that waits for what others decide hears of it, and goes on. */
export const talkingConsumer: Consumer = {
  name: 'talking',
  hears: ({ type }) => type === 'granted' || type === 'declined',
  async handle(listo, decided, tx) {
    for (const { ticketNumber, type } of decided) {
      const [talk] = await listo.db.select<{ id: string }>(
        `SELECT k.id FROM tickets t JOIN talks k ON k.personId = t.requesterId AND k.ticketNumber = t.number AND k.endedAt IS NULL
         WHERE t.number = :number`,
        { number: ticketNumber },
        tx,
      );
      if (talk) await goOnAfterDecision({ listo, tx }, talk.id, type === 'granted');
    }
  },
};
