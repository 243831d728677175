import { factsOfEntry } from '../../core/journal';
import { composeText } from '../../core/words';
import { LOCALES, type Language } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import type { MailBlanks, MailTemplate } from '../../core/mail';
import { isMailed } from '../../core/telling';
import type { JournalRow } from '../journal/model';
import { factsOf } from '../tickets/answered';
import { lookUp, type LookUp } from '../notifications/lookUp';
import type { Told } from '../notifications/model';
import type { PersonRow } from '../people/model';
import type { TicketRecord } from '../tickets/model';
import { isMailOn, queueMail } from './queue';
import type { UnitOfWork } from '../unitOfWork';

const SAYS: Record<Language, { yes: string; no: string; costs: string }> = {
  en: { yes: 'yes', no: 'no', costs: 'It costs' },
  pt: { yes: 'sim', no: 'não', costs: 'Custa' },
};

export const euros = (cents: number, language: Language): string =>
  new Intl.NumberFormat(LOCALES[language], { style: 'currency', currency: 'EUR' }).format(cents / 100);

async function wordsOf({ listo, tx }: UnitOfWork, entry: JournalRow, language: Language): Promise<string> {
  const { changes } = entry;
  if (entry.type === 'decided') {
    const { data } = entry;
    const says = SAYS[language][data.decision === 'approve' ? 'yes' : 'no'];
    return [says, data.words].filter(Boolean).join(': ');
  }
  const { messageId, target, words } = factsOfEntry(entry);
  if (typeof words === 'object' && words) return inLanguage(words, language);
  if (messageId !== undefined) {
    const message = await listo.db.tables.messages.findOne({ id: messageId }, tx);
    // What is the team's never leaves by mail.
    if (message?.readBy !== 'requester') return '';
    return message.format === 'rich' ? composeText(message.text, listo.address) : message.text;
  }
  const solution = changes.solution?.to;
  if (typeof solution === 'string') return solution;
  return target ?? '';
}

/** An instant as its reader would say it, where they work. */
async function instantWords(
  { listo, tx }: UnitOfWork,
  at: number,
  { siteId, language }: PersonRow,
): Promise<string> {
  const site = await listo.db.tables.sites.findOne({ id: siteId }, tx);
  return new Intl.DateTimeFormat(LOCALES[language], {
    ...{ weekday: 'long', day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' },
    timeZone: site?.timeZone ?? 'UTC',
  }).format(at);
}

type Mailed = { told: Told; ticket: TicketRecord; person: PersonRow };

async function mailOne(
  { listo, tx }: UnitOfWork,
  { told, ticket, person }: Mailed,
  known: LookUp,
): Promise<void> {
  const { entry, event, relation } = told;
  const { language } = person;
  const isAsk = relation === 'approver';
  const actor = entry.actorId === null ? null : await known.person(entry.actorId);
  const requester = await known.person(ticket.requesterId);
  const service = await known.service(ticket);
  const askId = isAsk ? await known.openAsk(ticket.number, person.id) : null;
  if (isAsk && askId === null) return;
  const { forecastAt } = factsOfEntry(entry);
  const isTeamSide = relation === 'lead';
  const blanks: MailBlanks = {
    who: actor?.name ?? 'Listo',
    words: await wordsOf({ listo, tx }, entry, language),
    service: service.title[language],
    requester: requester?.name ?? '',
    link: `${listo.address}${isAsk ? `/ask#ask-${askId}` : isTeamSide ? `/desk/everything/${ticket.number}` : `/ask/tickets/${ticket.number}`}`,
    ...(forecastAt !== undefined && {
      promised: await instantWords({ listo, tx }, forecastAt, person),
    }),
    ...(isAsk && { facts: factsOf(service.form, ticket.answers, language) }),
    ...(isAsk &&
      service.cost !== null && { cost: `${SAYS[language].costs} ${euros(service.cost, language)}.` }),
  };
  // What a rule says reads as any answer, but that nobody said it.
  const written = event === 'ruleSaid' ? 'answered' : (event as MailTemplate);
  const asking: MailTemplate = entry.type === 'askReminded' ? 'askAgain' : 'ask';
  const template = isAsk ? asking : written;
  const to = { id: person.id, name: person.name, email: person.email, language };
  await queueMail({ listo, tx }, { template, to, about: ticket, blanks, askId }, known);
}

/** Writes to those who are told by mail too, of what they have just been told. */
export async function mailTold(
  { listo, tx }: UnitOfWork,
  all: (Told & { ticket: TicketRecord })[],
  known: LookUp = lookUp(listo, tx),
): Promise<void> {
  const mailed = all.filter(({ event, relation }) => isMailed(event, relation));
  if (mailed.length === 0 || !(await isMailOn(listo, tx))) return;
  const ids = [...new Set(mailed.map(({ personId }) => personId))];
  const people = await listo.db.tables.people.find({ id: ids, leftAt: null }, { transaction: tx });
  for (const { ticket, ...told } of mailed) {
    const person = people.find(({ id }) => id === told.personId);
    // What waits for someone's decision is sent also to who wants no mail otherwise.
    if (person && person.email !== '' && (person.wantsMail || told.relation === 'approver'))
      await mailOne({ listo, tx }, { told, ticket, person }, known);
  }
}
