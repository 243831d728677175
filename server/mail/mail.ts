import type { FileStore } from '../files/store';
import type { Listo } from '../listo';
import { listenForMail } from './listener';
import { receiveMail, refuseLarge } from './receive';
import { startSender } from './sender';

export type Mail = { port: number; stop(): Promise<void> };

/** Mail of a process: what comes in, what goes out, and (where no server is named) the mailboxes it goes to. */
export async function startMail(
  listo: Listo,
  store: FileStore,
  startMailbox: (listo: Listo, host: string) => Promise<{ port: number; stop(): Promise<void> }>,
): Promise<Mail> {
  const { HOST: host, LISTO_MAIL_PORT: port, LISTO_SMTP_URL: smtpUrl } = listo.config;
  const listener = await listenForMail(
    listo,
    { host, port },
    {
      take: (raw, envelope) => receiveMail({ listo, store }, raw, envelope),
      refuse: (envelope, size) => refuseLarge(listo, envelope, size),
    },
  );
  const mailbox = smtpUrl === undefined ? await startMailbox(listo, '127.0.0.1') : null;
  const sender = startSender(listo, smtpUrl ?? `smtp://127.0.0.1:${mailbox!.port}?ignoreTLS=true`);
  return {
    port: listener.port,
    async stop() {
      await sender.stop();
      await listener.stop();
      await mailbox?.stop();
    },
  };
}
