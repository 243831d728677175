import { createHash } from 'node:crypto';
import { nanoid } from 'nanoid';
import { toAddress } from '../../core/identity';
import {
  isAutomatic,
  readDecision,
  readProof,
  readSolved,
  trimReply,
  type MailTemplate,
} from '../../core/mail';
import { findBadText } from '../../core/text';
import { decide } from '../approvals/decide';
import { sayOutcome } from '../approvals/outcome';
import { askBack } from '../approvals/question';
import { isDuplicate } from '../database/failures';
import type { FileStore } from '../files/store';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { PersonRow } from '../people/model';
import { findPersonAsViewer } from '../sessions/viewer';
import { createTicket } from '../tickets/create';
import { write } from '../tickets/messages';
import type { TicketRecord } from '../tickets/model';
import { makeMove } from '../tickets/move';
import { keepAttachments } from './attachments';
import type { Envelope } from './listener';
import type { MailAddressRow, MailInRow, MailOutcome } from './model';
import { queueMail } from './queue';
import { readMail, type ReadMail } from './read';
import type { Viewing } from '../unitOfWork';

const TEXT_LIMIT = 20_000;
const FILES_LIMIT = 20;
/** By itself Listo answers one address no oftener than this an hour: two machines never talk for long. */
const MOST_ANSWERS = 6;
const HOUR_MS = 3_600_000;

type Became = { outcome: MailOutcome; detail?: string; ticketNumber?: number; personId?: string };
/** `key`: what makes a message that comes again the same one. */
type Came = {
  mail: ReadMail;
  from: string;
  person: PersonRow | null;
  written: string;
  key: string;
  /** What servers wrote of how they checked the sender, the uppermost first. */
  proofs: string[];
};

const hash = (data: string | Buffer): string => createHash('sha256').update(data).digest('hex');

/** More of a text than anyone writes is not read. */
const READ_LIMIT = 200_000;

/** What can be kept of a text exactly. */
function clean(whole: string): string {
  const text = whole.slice(0, READ_LIMIT);
  const stored = text.replaceAll('\u0000', '');
  return findBadText(stored) ? stored.replace(/\p{Surrogate}/gu, '\uFFFD') : stored;
}

function textOf(mail: ReadMail): string {
  // Without a plain part the library makes one of the HTML.
  return clean(mail.text);
}

/** Answers by itself: at most so often, and never a machine. */
async function answer(
  listo: Listo,
  { from, person }: Came,
  {
    mail: { template, about },
    blanks: { words = '', askId = null, facts } = {},
  }: {
    mail: { template: MailTemplate; about: Parameters<typeof queueMail>[1]['about'] };
    blanks?: { words?: string; askId?: string | null; facts?: string };
  },
): Promise<void> {
  if (!person) return;
  const since = listo.clock.now() - HOUR_MS;
  const [row] = await listo.db.select<{ count: number }>(
    'SELECT COUNT(*) AS count FROM mail_out WHERE toAddress = :from AND at > :since AND isReply',
    { from, since },
  );
  if (row!.count >= MOST_ANSWERS) return;
  const link =
    askId !== null || about === null
      ? `${listo.address}/ask`
      : `${listo.address}/ask/tickets/${about.number}`;
  const { id, name, email, language } = person;
  await listo.db.transaction((tx) =>
    queueMail(
      { listo, tx },
      {
        template,
        to: { id, name, email, language },
        about,
        blanks: { words, link, ...(facts !== undefined && { facts }) },
        askId,
        isReply: true,
      },
    ),
  );
}

/**
 * Whether a mail is from whom it says, as the mail server in front found. Where none is named, only the demo's mailboxes,
 * which are at both ends, are believed.
 */
async function isProven({ config, db }: Listo, { from, proofs }: Came): Promise<boolean> {
  const { LISTO_MAIL_AUTHSERV: authservId } = config;
  if (authservId !== '') return readProof(proofs, authservId, from) === 'proven';
  return (await db.tables.settings.findOne({ name: 'demo' })) !== null;
}

async function receiveDecision(listo: Listo, came: Came, address: MailAddressRow): Promise<Became> {
  const { personId, ticketNumber } = address;
  const askId = address.askId!;
  const known = { ticketNumber, personId };
  const ticket = (await listo.db.tables.tickets.findOne({ number: ticketNumber }))!;
  const actor = { id: personId, idempotencyKey: came.key };
  if (!(await isProven(listo, came))) {
    // Asked once: what comes again does not write again.
    const before = await listo.db.tables.mailIn.findOne({ ...known, outcome: 'notProven' });
    if (!before)
      await answer(listo, came, { mail: { template: 'notProven', about: ticket }, blanks: { askId } });
    return { outcome: 'notProven', ...known };
  }
  const decision = readDecision(came.written);
  try {
    if (decision.says === 'unclear') {
      if (came.written !== '')
        await askBack(listo, { personId, actor, via: 'mail' }, { askId, text: came.written.slice(0, 2000) });
      await answer(listo, came, { mail: { template: 'unclear', about: ticket }, blanks: { askId } });
      return { outcome: 'askedBack', detail: decision.why, ...known };
    }
    const words = decision.says === 'decline' ? decision.words.slice(0, 2000) : '';
    await decide(
      listo,
      { personId, actor, via: 'mail' },
      { askId, decision: { decision: decision.says, words } },
    );
    return { outcome: 'decided', detail: decision.says, ...known };
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    const words = (await sayOutcome(listo, askId, came.person?.language ?? 'en')) ?? '';
    await answer(listo, came, {
      mail: { template: 'alreadyDecided', about: ticket },
      blanks: { askId, words },
    });
    return { outcome: 'alreadyDecided', ...known };
  }
}

async function receiveAnswer(
  { listo, store }: { listo: Listo; store: FileStore },
  came: Came,
  { personId, ticketNumber }: MailAddressRow,
): Promise<Became> {
  const viewer = await findPersonAsViewer(listo, personId);
  const known = { ticketNumber, personId };
  if (!viewer) return { outcome: 'notTheirs', ...known };
  if (!(await isProven(listo, came))) return { outcome: 'notProven', ...known };
  const { fileIds, left } = await keepAttachments(listo, store, {
    personId,
    attachments: came.mail.attachments.slice(0, FILES_LIMIT),
  });
  if (readSolved(came.written) && (await endSolved(listo, personId, ticketNumber)))
    return { outcome: 'answered', detail: 'solved', ...known };
  const text = came.written.slice(0, TEXT_LIMIT);
  if (text === '' && fileIds.length === 0) return { outcome: 'empty', ...known };
  // Files alone are words enough; the thread shows them by name.
  const words = { text: text === '' ? '📎' : text, readBy: 'requester' as const, links: [], fileIds };
  await write({ listo, viewer, actor: { id: personId, idempotencyKey: came.key } }, ticketNumber, {
    words,
    how: {
      by: 'mail',
    },
  });
  return {
    outcome: 'answered',
    ...known,
    ...(left.length > 0 && { detail: `left out: ${left.join(', ')}` }),
  };
}

/** Where the team wants it, the assistant answers with what may solve it. @returns whether it had something to say */
async function answerAtOnce(
  { listo, viewer }: Viewing,
  came: Came,
  { ticket, said }: { ticket: TicketRecord; said: { subject: string; text: string } },
): Promise<boolean> {
  const team = await listo.db.tables.teams.findOne({ id: ticket.teamId });
  if (!team?.answersMail || team.isConfidential) return false;
  const answers = await listo.ports.mail.findMailAnswers(listo, viewer, said);
  if (answers.length === 0) return false;
  const facts = answers
    .map(({ articleId, title, text }) => `${title}\n${text}\n${listo.address}/ask/articles/${articleId}`)
    .join('\n\n');
  await listo.db.transaction((tx) =>
    listo.ports.mail.keepSent({ listo, tx }, { personId: viewer.id, ticketNumber: ticket.number }, answers),
  );
  await answer(listo, came, { mail: { template: 'mayAnswer', about: ticket }, blanks: { facts } });
  return true;
}

/** What was sent was it: nobody has to look at it any more. @returns whether that is so, and may be */
async function endSolved(listo: Listo, personId: string, ticketNumber: number): Promise<boolean> {
  const { tables, transaction } = listo.db;
  const sent = await tables.articleUses.find({ ticketNumber, personId, what: 'shown' }, { limit: 1 });
  if (sent.length === 0) return false;
  const isEnded = await transaction(async (tx) => {
    const ticket = await tables.tickets.findOne({ number: ticketNumber }, tx, true);
    if (ticket?.requesterId !== personId || ticket.state !== 'received') return false;
    await makeMove({ listo, tx }, ticket, {
      ...{ name: 'withdraw', by: 'requester', actorId: personId, via: 'mail', input: {} },
    });
    await listo.ports.mail.keepWasIt({ listo, tx }, { personId, ticketNumber });
    return true;
  });
  listo.wake();
  return isEnded;
}

async function receiveNew(
  { listo, store }: { listo: Listo; store: FileStore },
  came: Came,
  mailbox: string,
): Promise<Became> {
  const { tables } = listo.db;
  const team = await tables.teams.findOne({ mailbox });
  if (!team?.mailServiceId) return { outcome: 'unknownAddress' };
  if (!came.person) return { outcome: 'unknownSender' };
  if (!(await isProven(listo, came))) return { outcome: 'notProven', personId: came.person.id };
  const personId = came.person.id;
  const viewer = (await findPersonAsViewer(listo, personId))!;
  const service = (await tables.services.findOne({ id: team.mailServiceId }))!;
  const text = textOf(came.mail).trim().slice(0, TEXT_LIMIT);
  const title =
    clean(came.mail.subject).replace(/\s+/g, ' ').trim().slice(0, 200) || text.split('\n')[0]!.slice(0, 200);
  if (title === '') return { outcome: 'empty', personId };
  const { fileIds, left } = await keepAttachments(listo, store, {
    personId,
    attachments: came.mail.attachments.slice(0, FILES_LIMIT),
  });
  const field = service.form.fields.find(({ kind }) => kind === 'longText');
  const { number } = await createTicket(
    { listo, viewer, actor: { id: personId, idempotencyKey: came.key } },
    {
      ...{ serviceId: service.id, title, alsoToldIds: [], fileIds, via: 'mail' as const },
      answers: field && text !== '' ? { [field.name]: text } : {},
    },
    { isLenient: true },
  );
  const ticket = (await tables.tickets.findOne({ number }))!;
  if (!(await answerAtOnce({ listo, viewer }, came, { ticket, said: { subject: title, text } })))
    await answer(listo, came, { mail: { template: 'received', about: ticket } });
  return {
    outcome: 'newTicket',
    ticketNumber: number,
    personId,
    ...(left.length > 0 && { detail: `left out: ${left.join(', ')}` }),
  };
}

async function sort(
  { listo, store }: { listo: Listo; store: FileStore },
  came: Came,
  { to, envelope }: { to: string; envelope: Envelope },
): Promise<Became> {
  const headers = new Map<string, string>();
  for (const { key, line } of came.mail.headerLines)
    headers.set(key, line.slice(line.indexOf(':') + 1).trim());
  const [local = '', domain] = to.split('@');
  const isOwn = came.from.endsWith(`@${listo.config.LISTO_MAIL_DOMAIN}`);
  if (isOwn || isAutomatic(headers, came.from, envelope.from)) return { outcome: 'automatic' };
  if (domain !== listo.config.LISTO_MAIL_DOMAIN) return { outcome: 'unknownAddress' };
  const [kind, token] = local.split('+');
  if (token === undefined) return receiveNew({ listo, store }, came, local);
  const address = await listo.db.tables.mailAddresses.findOne({ token });
  if (!address || (kind === 'ask') !== (address.askId !== null)) return { outcome: 'unknownAddress' };
  // The address alone is not enough: it has to come from whom it was given to.
  if (came.person?.id !== address.personId)
    return { outcome: 'notTheirs', ticketNumber: address.ticketNumber };
  return address.askId === null
    ? receiveAnswer({ listo, store }, came, address)
    : receiveDecision(listo, came, address);
}

async function account(listo: Listo, row: Omit<MailInRow, 'id' | 'at'>): Promise<void> {
  await listo.db.tables.mailIn.insert({
    ...{ ...row, id: nanoid(), at: listo.clock.now() },
    messageId: row.messageId.slice(0, 255),
    fromAddress: row.fromAddress.slice(0, 255),
    toAddress: row.toAddress.slice(0, 255),
    subject: clean(row.subject).slice(0, 500),
    detail: row.detail?.slice(0, 500) ?? null,
  });
}

/** Tells of one that was too large to be taken. */
export async function refuseLarge(listo: Listo, { from, to }: Envelope, size: number): Promise<void> {
  for (const toAddress of to)
    await account(listo, {
      ...{ messageId: `large:${nanoid()}`, fromAddress: from, toAddress, subject: '', size },
      ...{ outcome: 'tooLarge', detail: null, ticketNumber: null, personId: null },
    });
}

/**
 * Takes in a message, for each of its recipients: once, however often it comes. What became of it is on record before
 * its sender is told that it has arrived.
 */
export async function receiveMail(
  { listo, store }: { listo: Listo; store: FileStore },
  raw: Buffer,
  envelope: Envelope,
): Promise<void> {
  const { tables } = listo.db;
  const mail = await readMail(raw);
  const messageId = (mail?.messageId ?? `sha256:${hash(raw)}`).slice(0, 255);
  const given = mail?.from ?? envelope.from;
  // Compared by its bytes: letters that look alike are others.
  const address = toAddress(given);
  const from = address ?? given.slice(0, 255);
  const person = address === null ? null : await tables.people.findOne({ email: address, leftAt: null });
  for (const recipient of new Set(envelope.to.map((address) => address.toLowerCase()))) {
    const to = recipient.slice(0, 255);
    if (await tables.mailIn.findOne({ messageId, toAddress: to })) continue;
    const seen = {
      messageId,
      fromAddress: from,
      toAddress: to,
      subject: mail?.subject ?? '',
      size: raw.length,
    };
    let became: Became;
    try {
      became = mail
        ? await sort(
            { listo, store },
            {
              ...{ mail, from, person, written: trimReply(textOf(mail)) },
              key: hash(`${messageId}\n${to}`),
              proofs: mail.headerLines
                .filter(({ key }) => key === 'authentication-results')
                .map(({ line }) => line.slice(line.indexOf(':') + 1)),
            },
            { to: recipient, envelope },
          )
        : { outcome: 'unreadable' };
    } catch (error) {
      // What the rules refuse will be refused again; anything else may come again.
      if (!(error instanceof ProblemError)) throw error;
      became = { outcome: 'refused', detail: error.problem };
    }
    const row = { ...seen, detail: null, ticketNumber: null, personId: person?.id ?? null, ...became };
    await account(listo, row).catch((error: unknown) => {
      if (!isDuplicate(error)) throw error;
    });
  }
}
