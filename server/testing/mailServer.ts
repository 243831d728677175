import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';

export type MailServer = {
  url: string;
  port: number;
  /** Subjects of what it took, in their order. */
  taken: string[];
  /** From now on refuses mails whose subject fits; null: none. By a code from 500 on it never takes them. */
  refuses(subjects: RegExp | null, code?: number): void;
  end(): Promise<void>;
};

/** A mail server on loopback that takes what comes, at its own pace. @param port 0: any that is free */
export async function startMailServer({ slowMs = 0, port = 0 } = {}): Promise<MailServer> {
  const taken: string[] = [];
  let refused: RegExp | null = null;
  let responseCode = 451;
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData(stream, _session, callback) {
      let text = '';
      stream.on('data', (chunk: Buffer) => (text += chunk.toString()));
      stream.on('end', () => {
        const subject = /^Subject: (.*)$/m.exec(text)![1]!.trim();
        if (refused?.test(subject)) {
          callback(Object.assign(new Error('not taken'), { responseCode }));
          return;
        }
        setTimeout(() => {
          taken.push(subject);
          callback();
        }, slowMs);
      });
    },
  });
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  const given = (server.server.address() as AddressInfo).port;
  return {
    url: `smtp://127.0.0.1:${given}?ignoreTLS=true`,
    port: given,
    taken,
    refuses(subjects, code = 451) {
      refused = subjects;
      responseCode = code;
    },
    end: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
