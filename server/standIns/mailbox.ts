import { Router } from 'express';
import { nanoid } from 'nanoid';
import { createTransport } from 'nodemailer';
import * as z from 'zod';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { listenForMail, type Listening } from '../mail/listener';

/** The mailboxes of the demo's people: they take what Listo sends, and send what is answered, over SMTP both ways. */
export function startMailbox(listo: Listo, host: string): Promise<Listening> {
  return listenForMail(
    listo,
    { host, port: 0 },
    {
      async take(raw, { to }) {
        const { simpleParser } = await import('mailparser');
        const mail = await simpleParser(raw);
        for (const address of to)
          await listo.db.tables.standInMails.insert({
            ...{ id: nanoid(), at: listo.clock.now(), toAddress: address.toLowerCase() },
            fromName: mail.from?.value[0]?.name ?? '',
            replyTo: mail.replyTo?.value[0]?.address ?? mail.from?.value[0]?.address ?? '',
            subject: mail.subject ?? '',
            ...{ text: mail.text ?? '', html: mail.html || null, messageId: mail.messageId ?? '' },
            refs: [mail.references ?? []].flat().join(' ') || null,
          });
      },
    },
  );
}

const sentSchema = z.object({
  to: z.email(),
  subject: z.string().max(500),
  text: z.string().max(20_000),
  inReplyTo: z.string().nullable().default(null),
});

/** Lets someone read their mails, answer them and write new ones, as a mail program would. */
export function createMailboxRoutes(listo: Listo, portOfListo: () => number): Router {
  const router = Router();
  const { tables } = listo.db;
  router.use(async (request, _response, next) => {
    if (!request.viewer) throw new ProblemError('notSignedIn');
    if (!(await tables.settings.findOne({ name: 'demo' }))) throw new ProblemError('notFound');
    next();
  });
  const emailOf = async (personId: string): Promise<{ name: string; email: string }> =>
    (await tables.people.findOne({ id: personId }))!;
  router.get('/', async (request, response) => {
    const { email } = await emailOf(request.viewer!.id);
    const mails = await tables.standInMails.find(
      { toAddress: email },
      { order: [['at', 'DESC']], limit: 100 },
    );
    response.json({ address: email, mails: mails.map(({ html: _, ...mail }) => mail) });
  });
  router.post('/', async (request, response) => {
    const sent = sentSchema.safeParse(request.body);
    if (!sent.success) throw new ProblemError('malformed');
    const { name, email } = await emailOf(request.viewer!.id);
    const { to, subject, text, inReplyTo } = sent.data;
    const transport = createTransport({
      host: '127.0.0.1',
      port: portOfListo(),
      secure: false,
      ignoreTLS: true,
    });
    await transport.sendMail({
      from: { name, address: email },
      to,
      subject,
      text,
      ...(inReplyTo && { inReplyTo, references: [inReplyTo] }),
    });
    transport.close();
    response.json({ ok: true });
  });
  return router;
}
