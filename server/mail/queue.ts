import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import type { Language } from '../../core/forms';
import { writeMail, type MailBlanks, type MailTemplate } from '../../core/mail';
import type { Listo } from '../listo';
import { lookUp, type LookUp } from '../notifications/lookUp';
import type { UnitOfWork } from '../unitOfWork';

const TOKEN_LENGTH = 24;
const ALPHABET = 'abcdefghijklmnopqrstuvwxyz0123456789';

export type Recipient = { id: string | null; name: string; email: string; language: Language };
type About = { number: number; title: string; teamId: string } | null;

/** A token that survives programs which change the case of addresses. */
function createMailToken(): string {
  return Array.from(
    { length: TOKEN_LENGTH },
    () => ALPHABET[crypto.getRandomValues(new Uint32Array(1))[0]! % ALPHABET.length]!,
  ).join('');
}

/** The address to which someone's answer comes back: the same for a ticket, one of its own for each ask. */
async function findAnswerAddress(
  { listo, tx }: UnitOfWork,
  { personId, ticketNumber, askId }: { personId: string; ticketNumber: number; askId: string | null },
  known: LookUp,
): Promise<string> {
  const addresses = await known.mailAddresses(ticketNumber);
  const address = addresses.find((each) => each.personId === personId && each.askId === askId);
  const token = address?.token ?? createMailToken();
  if (!address) {
    const made = { token, personId, ticketNumber, askId, at: listo.clock.now() };
    addresses.push(made);
    await listo.db.tables.mailAddresses.insert(made, tx);
  }
  return `${askId === null ? 'reply' : 'ask'}+${token}@${listo.config.LISTO_MAIL_DOMAIN}`;
}

type Queued = {
  template: MailTemplate;
  to: Recipient;
  about: About;
  blanks: MailBlanks;
  askId?: string | null;
  isReply?: boolean;
};

/** Puts a mail in line, in the transaction of what it tells of; it leaves after the commit. */
export async function queueMail(
  { listo, tx }: UnitOfWork,
  { template, to, about, blanks, askId = null, isReply = false }: Queued,
  known: LookUp = lookUp(listo, tx),
): Promise<void> {
  const { tables } = listo.db;
  const { LISTO_MAIL_DOMAIN: domain } = listo.config;
  const now = listo.clock.now();
  const team = about && (await known.team(about.teamId));
  const fromAddress = `${team?.mailbox ?? 'listo'}@${domain}`;
  const replyTo =
    about && to.id !== null
      ? await findAnswerAddress({ listo, tx }, { personId: to.id, ticketNumber: about.number, askId }, known)
      : fromAddress;
  const { subject, text } = writeMail(await known.mailTexts(template), to.language, {
    ...(about && { number: String(about.number), title: about.title }),
    name: to.name,
    ...blanks,
  });
  await tables.mailOut.insert(
    {
      ...{ id: nanoid(), at: now, template, toId: to.id, toAddress: to.email, subject, text },
      fromName: team?.name[to.language] ?? 'Listo',
      ...{ fromAddress, replyTo, ticketNumber: about?.number ?? null, language: to.language, isReply },
      ...{ state: 'waiting', tries: 0, nextAt: now, sentAt: null, error: null },
    },
    tx,
  );
}

/** Whether anything would take a mail: a server that is named, or the demo's stand-in. */
export async function isMailOn(listo: Listo, tx?: Transaction): Promise<boolean> {
  if (listo.config.LISTO_SMTP_URL !== undefined) return true;
  return (await listo.db.tables.settings.findOne({ name: 'demo' }, tx)) !== null;
}
