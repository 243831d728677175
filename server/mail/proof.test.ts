import { createTransport } from 'nodemailer';
import type { Ticket } from '../../contract/tickets';
import { startTestListo, until, type TestListo } from '../testing/harness';
import type { MailInRow } from './model';

/** A decision by mail counts only from the one who was asked, as the mail server in front found (RFC 8601). */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('proof', { env: { LISTO_MAIL_AUTHSERV: 'mx.solvarra.example' } });
});
afterAll(() => app.end());

type Reply = { subject: string; to: string; from: string; results?: string };

/** Says yes by mail. @returns what became of it */
async function sayYes({ subject, to, from, results }: Reply): Promise<MailInRow> {
  const { mailIn } = app.listo.db.tables;
  const before = (await mailIn.find({})).length;
  const transport = createTransport({
    host: '127.0.0.1',
    port: app.mailPort,
    secure: false,
    ignoreTLS: true,
  });
  const headers = { ...(results !== undefined && { 'Authentication-Results': results }) };
  await transport.sendMail({ from, to, subject, text: 'yes', headers });
  transport.close();
  const all = await until(
    () => mailIn.find({}, { order: [['at', 'ASC']] }),
    (rows) => rows.length > before,
  );
  return all.at(-1)!;
}

test('a yes counts once its sender is proven; until then its reader is sent to the page', async () => {
  const tomas = await app.as('tomas');
  const body = {
    ...{ serviceId: 'gate-scanner', title: 'Scanner' },
    answers: { site: 'Port Alder', sort: 'hand', count: 1 },
  };
  const { number } = (await tomas.call('POST', '/tickets', body)).body as { number: number };
  const { standInMails } = app.listo.db.tables;
  const mailsToAna = () => standInMails.find({ toAddress: 'ana@solvarra.example' });
  const asks = async () => (await mailsToAna()).filter(({ subject }) => subject.includes(`[${number}]`));
  const [mail] = await until(asks, (mails) => mails.length > 0);
  const reply = { subject: `Re: ${mail!.subject}`, to: mail!.replyTo, from: 'ana@solvarra.example' };
  const stateOf = async () =>
    ((await tomas.call('GET', `/tickets/${number}`)).body as Ticket).approvals[0]!.outcome;

  // Nobody vouches for it; someone else does; the one who does found it false; another's domain.
  const ofUs = 'mx.solvarra.example; dmarc';
  expect((await sayYes(reply)).outcome).toBe('notProven');
  expect(
    (await sayYes({ ...reply, results: 'mx.other.example; dmarc=pass header.from=solvarra.example' }))
      .outcome,
  ).toBe('notProven');
  expect((await sayYes({ ...reply, results: `${ofUs}=fail header.from=solvarra.example` })).outcome).toBe(
    'notProven',
  );
  expect((await sayYes({ ...reply, results: `${ofUs}=pass header.from=other.example` })).outcome).toBe(
    'notProven',
  );
  // A letter that only looks like hers.
  const lookalike = {
    ...reply,
    from: 'aná@solvarra.example',
    results: `${ofUs}=pass header.from=solvarra.example`,
  };
  expect((await sayYes(lookalike)).outcome).not.toBe('decided');
  expect(await stateOf()).toBe('open');
  // She is told once where to click, however often it comes.
  const told = (await mailsToAna()).filter(
    ({ subject, text }) => subject.includes(String(number)) && text.includes('/ask'),
  );
  expect(told).toHaveLength(2);

  const proven = await sayYes({ ...reply, results: `${ofUs}=pass header.from=solvarra.example` });
  expect(proven).toMatchObject({ outcome: 'decided', detail: 'approve', personId: 'ana' });
  expect(await stateOf()).toBe('approved');
});
