import { sayAnswer, type FormDefinition, type Language } from '../../core/forms';
import { getOwn } from '../../core/records';
import type { UnitOfWork } from '../unitOfWork';
import type { TicketRecord } from './model';

/** What a ticket says in the blanks of words, by language: its facts, and the answers of a form; and its requester's language. */
export async function readTicketBlanks(
  { listo, tx }: UnitOfWork,
  ticket: TicketRecord,
  form: FormDefinition | null,
): Promise<{ language: Language; blanksIn(language: Language): Record<string, string> }> {
  const { tables } = listo.db;
  const requester = (await tables.people.findOne({ id: ticket.requesterId }, tx))!;
  const team = await tables.teams.findOne({ id: ticket.teamId }, tx);
  const service = await tables.services.findOne({ id: ticket.serviceId }, tx);
  const first = requester.name.split(' ')[0]!;
  const { number, title, priority, place, answers } = ticket;
  return {
    language: requester.language,
    blanksIn: (language) => ({
      ...{ number: String(number), title, priority, place, requester: requester.name, first, name: first },
      ...{ team: team?.name[language] ?? '', service: service?.title[language] ?? '' },
      ...Object.fromEntries(
        (form?.fields ?? []).map((field) => [
          field.name,
          sayAnswer(field, getOwn(answers, field.name), language) ?? '',
        ]),
      ),
    }),
  };
}
