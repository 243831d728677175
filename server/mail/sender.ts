import { createTransport, type Transporter } from 'nodemailer';
import { ANSWER_ABOVE, toHtml } from '../../core/mail';
import { asBackground } from '../database/busy';
import type { Listo } from '../listo';
import type { MailOutRow } from './model';

const LOOK_MS = 300;
const BATCH = 20;
/** So long a process has for what it claimed; then another may send it. */
const LEASE_MS = 60_000;
const FIRST_WAIT_MS = 30_000;
const LONGEST_WAIT_MS = 15 * 60_000;
/** With waits that double up to a quarter of an hour: about two days. */
const MOST_TRIES = 200;
/** A server that says so (5yz) never takes it. */
const isForGood = (error: unknown): boolean => {
  const code = (error as { responseCode?: number }).responseCode;
  return code !== undefined && code >= 500;
};

/** Claims what is due, for one process: later ones pass over what is leased. */
async function claim(listo: Listo): Promise<MailOutRow[]> {
  const now = listo.clock.now();
  return listo.db.transaction(async (tx) => {
    const rows = await listo.db.select<MailOutRow>(
      // A mail waits for what stands before it in its thread, so that nobody reads the answer before the question.
      `SELECT * FROM mail_out o WHERE o.state = 'waiting' AND (o.nextAt <= :now OR o.nextAt > :farthest) AND NOT EXISTS (
         SELECT 1 FROM mail_out e WHERE e.state = 'waiting' AND e.ticketNumber = o.ticketNumber AND e.toAddress = o.toAddress
           AND (e.at < o.at OR (e.at = o.at AND e.id < o.id)))
       ORDER BY o.nextAt, o.at LIMIT :limit FOR UPDATE SKIP LOCKED`,
      // No wait is longer than the longest: what stands further ahead is so by a clock that was set back.
      { now, farthest: now + LONGEST_WAIT_MS + LEASE_MS, limit: BATCH },
      tx,
    );
    for (const { id } of rows) await listo.db.tables.mailOut.update({ id }, { nextAt: now + LEASE_MS }, tx);
    return rows.map((row) => ({ ...row, nextAt: now + LEASE_MS }));
  });
}

async function send(listo: Listo, transport: Transporter, mail: MailOutRow): Promise<void> {
  const { LISTO_MAIL_DOMAIN: domain } = listo.config;
  const text = `${ANSWER_ABOVE[mail.language]}\n\n${mail.text}`;
  // All mails on a ticket hang on one root, so that programs show them as one thread.
  const thread = mail.ticketNumber === null ? null : `<ticket-${mail.ticketNumber}@${domain}>`;
  await transport.sendMail({
    from: { name: mail.fromName, address: mail.fromAddress },
    to: mail.toAddress,
    replyTo: mail.replyTo,
    subject: mail.subject,
    text,
    html: toHtml(text),
    messageId: `<${mail.id}@${domain}>`,
    ...(thread && { inReplyTo: thread, references: [thread] }),
    headers: { 'Auto-Submitted': mail.isReply ? 'auto-replied' : 'auto-generated' },
  });
}

/** Sends what is in line until stopped; what cannot be sent now is sent later, once. */
export function startSender(listo: Listo, smtpUrl: string): { stop(): Promise<void> } {
  const transport = createTransport(smtpUrl, { connectionTimeout: 10_000, socketTimeout: 20_000 } as never);
  let isStopped = false;
  let timer: NodeJS.Timeout | undefined;
  let running = Promise.resolve();

  async function sendOne(mail: MailOutRow): Promise<void> {
    const { mailOut } = listo.db.tables;
    const tries = mail.tries + 1;
    // Those before it may have taken long: only who still has it sends it.
    const nextAt = listo.clock.now() + LEASE_MS;
    const isOurs =
      nextAt === mail.nextAt ||
      (await mailOut.update({ id: mail.id, state: 'waiting', nextAt: mail.nextAt }, { nextAt })) === 1;
    if (!isOurs) return;
    try {
      await send(listo, transport, mail);
      await mailOut.update({ id: mail.id }, { state: 'sent', tries, sentAt: listo.clock.now(), error: null });
    } catch (error) {
      const isOver = isForGood(error) || tries >= MOST_TRIES;
      const wait = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** Math.min(tries - 1, 10));
      await mailOut.update(
        { id: mail.id },
        {
          ...{ state: isOver ? 'failed' : 'waiting', tries, nextAt: listo.clock.now() + wait },
          error: (error as Error).message.slice(0, 500),
        },
      );
    }
  }

  async function turn(): Promise<void> {
    let count = 0;
    try {
      const mails = await claim(listo);
      count = mails.length;
      for (const mail of mails) await sendOne(mail);
    } catch (error) {
      listo.log.error({ err: error }, 'mail could not be sent; trying again');
    }
    schedule(count === BATCH ? 0 : LOOK_MS);
  }

  function schedule(ms: number): void {
    if (isStopped) return;
    timer = setTimeout(() => {
      running = asBackground(turn);
    }, ms);
    timer.unref();
  }
  schedule(LOOK_MS);
  return {
    async stop() {
      isStopped = true;
      clearTimeout(timer);
      await running;
      transport.close();
    },
  };
}
