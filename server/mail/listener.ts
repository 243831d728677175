import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';
import type { Listo } from '../listo';

/** Larger messages are refused while they come. */
export const MAIL_LIMIT = 30 * 1024 * 1024;

export type Envelope = { from: string; to: string[] };
export type Taken = (raw: Buffer, envelope: Envelope) => Promise<void>;
export type Listening = { port: number; stop(): Promise<void> };

/** Takes in mail over SMTP, on loopback or where a mail server forwards to; each message is answered once it is kept. */
export function listenForMail(
  listo: Pick<Listo, 'log'>,
  { host, port }: { host: string; port: number },
  { take, refuse }: { take: Taken; refuse?: (envelope: Envelope, size: number) => Promise<void> },
): Promise<Listening> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    disableReverseLookup: true,
    // No limit is announced: what is too large is to be on record too, and is thrown away as it comes.
    logger: false,
    onData(stream, session, callback) {
      const chunks: Buffer[] = [];
      let size = 0;
      const { mailFrom, rcptTo } = session.envelope;
      const envelope = {
        from: mailFrom === false ? '' : mailFrom.address,
        to: rcptTo.map(({ address }) => address),
      };
      stream.on('data', (chunk: Buffer) => {
        size += chunk.length;
        if (size <= MAIL_LIMIT) chunks.push(chunk);
      });
      stream.on('end', () => {
        if (size > MAIL_LIMIT) {
          const over = Object.assign(new Error('Message too large'), { responseCode: 552 });
          void Promise.resolve(refuse?.(envelope, size)).finally(() => callback(over));
          return;
        }
        take(Buffer.concat(chunks), envelope).then(
          () => callback(),
          (error: unknown) => {
            listo.log.error({ err: error }, 'a mail could not be taken in; it may come again');
            callback(Object.assign(new Error('Try again later'), { responseCode: 451 }));
          },
        );
      });
    },
  });
  // Connections that break off are the other side's affair.
  server.on('error', (error) => listo.log.debug({ err: error }, 'mail connection'));
  return new Promise((resolve, reject) => {
    server.server.once('error', reject);
    server.listen(port, host, () =>
      resolve({
        port: (server.server.address() as AddressInfo).port,
        stop: () => new Promise((done) => server.close(done)),
      }),
    );
  });
}
