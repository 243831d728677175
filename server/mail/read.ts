import { Worker } from 'node:worker_threads';

/** A message as far as it is read. */
export type ReadMail = {
  messageId: string | null;
  /** The address of its sender as it is written; null: none is. */
  from: string | null;
  subject: string;
  text: string;
  headerLines: { key: string; line: string }[];
  attachments: { filename: string | undefined; content: Buffer; size: number }[];
};

/** So much text is read: nobody writes more, and what programs add is quoted. */
export const TEXT_READ = 400_000;
/** So long a message may take to be read; then it counts as one that cannot be. */
const PATIENCE_MS = 20_000;
/** Below this a message is read at once, above it in a thread: reading HTML takes long. */
const SMALL = 100_000;

/** Reads a message in this thread. @returns null where it is none */
export async function parseMail(raw: Buffer): Promise<ReadMail | null> {
  // Large, and wanted only where mail comes in.
  const { simpleParser } = await import('mailparser');
  const options = { skipTextLinks: true, skipImageLinks: true, maxHtmlLengthToParse: TEXT_READ };
  const mail = await simpleParser(raw, options).catch(() => null);
  if (mail === null) return null;
  const first = mail.from?.value[0]?.address;
  return {
    ...{ messageId: mail.messageId ?? null, from: first === undefined || first === '' ? null : first },
    subject: (mail.subject ?? '').slice(0, 2_000),
    // Without a plain part the library makes one of the HTML.
    text: (mail.text ?? '').slice(0, TEXT_READ),
    headerLines: mail.headerLines.map(({ key, line }) => ({ key, line: line.slice(0, 10_000) })),
    attachments: mail.attachments.map(({ filename, content, size }) => ({ filename, content, size })),
  };
}

/**
 * Reads a message: a large one in a thread of its own, which is ended where it takes too long, so that no message holds
 * up what others wait for.
 */
export function readMail(raw: Buffer): Promise<ReadMail | null> {
  if (raw.length < SMALL) return parseMail(raw);
  return new Promise((resolve) => {
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), { workerData: raw, execArgv: [] });
    const end = (mail: ReadMail | null): void => {
      clearTimeout(timer);
      void worker.terminate();
      resolve(mail);
    };
    const timer = setTimeout(() => end(null), PATIENCE_MS);
    worker.once('message', (mail: ReadMail | null) =>
      end(
        mail && {
          ...mail,
          // Bytes come over as plain arrays of them.
          attachments: mail.attachments.map((each) => ({ ...each, content: Buffer.from(each.content) })),
        },
      ),
    );
    worker.once('error', () => end(null));
    worker.once('exit', () => end(null));
  });
}
