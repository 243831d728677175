import type { Transaction } from 'sequelize';
import type { MailTemplate } from '../../core/mail';
import { definitionOf } from '../catalogue/versions';
import type { Listo } from '../listo';
import { readMailTexts } from './mailTexts';
import type { TicketRecord } from '../tickets/model';

/** Reads each thing once, however often it is asked for. */
function once<K, V>(
  read: (key: K) => Promise<V>,
  nameOf: (key: K) => string | number,
): (key: K) => Promise<V> {
  const known = new Map<string | number, Promise<V>>();
  return (key) => {
    const name = nameOf(key);
    const found = known.get(name) ?? read(key);
    known.set(name, found);
    return found;
  };
}

/** What telling has to look up, each thing once for all that is told together. */
export function lookUp(listo: Listo, tx: Transaction) {
  const { tables, select } = listo.db;
  const itself = (id: string): string => id;
  const openAsks = once(
    (number: number) =>
      select<{ id: string; askedId: string }>(
        `SELECT a.id, a.askedId FROM asks a JOIN approvals ap ON ap.id = a.approvalId AND ap.outcome = 'open'
         WHERE a.ticketNumber = :number AND a.decision IS NULL ORDER BY a.askedAt DESC`,
        { number },
        tx,
      ),
    (number) => number,
  );
  return {
    person: once((id: string) => tables.people.findOne({ id }, tx), itself),
    team: once((id: string) => tables.teams.findOne({ id }, tx), itself),
    chatWish: once((personId: string) => tables.chatWishes.findOne({ personId }, tx), itself),
    mailTexts: once((template: MailTemplate) => readMailTexts(listo, template, tx), itself),
    /** The addresses to which answers on a ticket come back, as far as there are any yet. */
    mailAddresses: once(
      (ticketNumber: number) => tables.mailAddresses.find({ ticketNumber }, { transaction: tx }),
      (number) => number,
    ),
    service: once(
      (ticket: Pick<TicketRecord, 'serviceId' | 'serviceVersion'>) => definitionOf(listo, ticket, tx),
      ({ serviceId, serviceVersion }) => `${serviceId} ${serviceVersion}`,
    ),
    /** The last that someone is asked on a ticket and has not decided. */
    openAsk: async (number: number, personId: string): Promise<string | null> =>
      (await openAsks(number)).find(({ askedId }) => askedId === personId)?.id ?? null,
  };
}

export type LookUp = ReturnType<typeof lookUp>;
