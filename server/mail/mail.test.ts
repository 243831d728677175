import { readLearned } from '../assistant/learned';
import { createTransport } from 'nodemailer';
import type { Ticket } from '../../contract/tickets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import type { MailInRow, StandInMailRow } from './model';

/** Mail out and in, over SMTP on loopback, to and from the demo's people. */
let app: TestListo;
let [tomas, ana, bia, helder]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('mail');
  [tomas, ana, bia, helder] = await Promise.all(['tomas', 'ana', 'bia', 'helder'].map(app.as));
});
afterAll(() => app.end());

type Sent = {
  from?: string;
  to: string;
  subject?: string;
  text?: string;
  headers?: Record<string, string>;
  raw?: string | Buffer;
  attachments?: { filename: string; content: Buffer | string }[];
  messageId?: string;
};

async function post({ raw, from = 'ana@solvarra.example', to, ...mail }: Sent): Promise<void> {
  const transport = createTransport({
    host: '127.0.0.1',
    port: app.mailPort,
    secure: false,
    ignoreTLS: true,
  });
  try {
    await transport.sendMail({
      from,
      to,
      ...mail,
      ...(raw !== undefined && { raw, envelope: { from, to: [to] } }),
    });
  } finally {
    transport.close();
  }
}
const tables = () => app.listo.db.tables;
const mailsOf = (name: string, subject?: RegExp): Promise<StandInMailRow[]> =>
  app.listo.db.tables.standInMails
    .find({ toAddress: `${name}@solvarra.example` }, { order: [['at', 'ASC']] })
    .then((mails) => mails.filter((mail) => !subject || subject.test(mail.subject)));
const lastIn = async (): Promise<MailInRow> =>
  (await app.listo.db.tables.mailIn.find({}, { order: [['at', 'DESC']] }))[0]!;
const read = async (number: number, by: Person): Promise<Ticket> =>
  (await by.call('GET', `/tickets/${number}`)).body as Ticket;

let counter = 0;
/** Sends a request that Ana has to agree to. @returns its number, and the mail that asks her */
async function askAna(): Promise<{ number: number; mail: StandInMailRow }> {
  const title = `Scanner ${++counter}`;
  const body = { serviceId: 'gate-scanner', title, answers: { site: 'Port Alder', sort: 'hand', count: 1 } };
  const { number } = (await tomas!.call('POST', '/tickets', body)).body as { number: number };
  const [mail] = await until(
    () => mailsOf('ana', new RegExp(`\\[${number}\\] Please decide`)),
    (mails) => mails.length > 0,
  );
  return { number, mail: mail! };
}
const answer = (mail: StandInMailRow, text: string, more: Partial<Sent> = {}): Promise<void> =>
  post({ to: mail.replyTo, subject: `Re: ${mail.subject}`, text, ...more });

test('the mail that asks has what is needed to decide, and a yes above its text approves', async () => {
  const { number, mail } = await askAna();
  for (const part of [
    'Tomás Veiga',
    'A scanner for a new gate',
    'Port Alder',
    '€340.00',
    '/ask',
    'Please write above this line',
  ])
    expect(mail.text).toContain(part);
  expect(mail.html).toContain('<p>');
  await answer(
    mail,
    `Yes, thanks.\nAna\n\nOn Mon 23 Nov 2026, Listo wrote:\n> ${mail.text.replaceAll('\n', '\n> ')}`,
  );
  const ticket = await until(
    () => read(number, tomas!),
    ({ state }) => state === 'received',
  );
  expect(ticket.entries.find(({ type }) => type === 'decided')).toMatchObject({
    via: 'mail',
    actor: { id: 'ana' },
  });
  // Ana was asked once, on the page as by mail.
  const tellings = await tables().notifications.find({ ticketNumber: number, personId: 'ana' });
  expect(tellings.filter(({ relation }) => relation === 'approver').map(({ event }) => event)).toEqual([
    'asked',
  ]);
  expect(await mailsOf('ana', new RegExp(`\\[${number}\\] Please decide`))).toHaveLength(1);
  // Tomás reads by mail what was decided.
  await until(
    () => mailsOf('tomas', new RegExp(`\\[${number}\\]`)),
    (mails) => mails.some(({ text }) => text.includes('Ana Lobo has decided: yes')),
  );
  // The same address answered once more decides nothing, and says so.
  await answer(mail, 'No, I changed my mind');
  expect(await lastIn()).toMatchObject({ outcome: 'alreadyDecided', ticketNumber: number });
  expect((await read(number, tomas!)).state).toBe('received');
  await until(
    () => mailsOf('ana', /Already decided/),
    (mails) => mails.length === 1,
  );
});

test('a no in Portuguese declines with its reason; one without a reason is asked back and decides nothing', async () => {
  const { number, mail } = await askAna();
  await answer(mail, 'Não');
  expect(await lastIn()).toMatchObject({ outcome: 'askedBack', detail: 'noReason' });
  await until(
    () => mailsOf('ana', new RegExp(`\\[${number}\\] Yes or no`)),
    (mails) => mails.length === 1,
  );
  expect(await read(number, tomas!)).toMatchObject({ state: 'held', heldFor: 'approval' });
  await answer(mail, 'Não, já temos três.');
  const ticket = await until(
    () => read(number, tomas!),
    ({ state }) => state === 'closed',
  );
  expect(ticket.approvals[0]!.asks[0]).toMatchObject({ decision: 'decline', words: 'já temos três.' });
});

test('what is unclear becomes a question on the thread, and the answer by mail comes back to it', async () => {
  const { number, mail } = await askAna();
  await answer(mail, 'Which gate is it for?');
  expect((await read(number, tomas!)).entries.map(({ message }) => message?.text)).toContain(
    'Which gate is it for?',
  );
  const [question] = await until(
    () => mailsOf('tomas', new RegExp(`\\[${number}\\]`)),
    (mails) => mails.some(({ text }) => text.includes('Which gate is it for?')),
  );
  await post({
    from: 'tomas@solvarra.example',
    to: question!.replyTo,
    subject: 'Re',
    text: 'Gate 3.',
    attachments: [
      { filename: 'plan.txt', content: 'gate 3' },
      { filename: 'tool.exe', content: Buffer.from('MZ\u0000') },
    ],
  });
  expect(await lastIn()).toMatchObject({ outcome: 'answered', detail: 'left out: tool.exe' });
  const last = (await read(number, tomas!)).entries.filter(({ message }) => message).at(-1)!;
  expect(last).toMatchObject({ via: 'mail', message: { text: 'Gate 3.', files: [{ name: 'plan.txt' }] } });
});

test('an address counts only from the one whom it was given to', async () => {
  const { number, mail } = await askAna();
  await answer(mail, 'yes', { from: 'tomas@solvarra.example' });
  expect(await lastIn()).toMatchObject({ outcome: 'notTheirs' });
  await answer(mail, 'yes', { from: 'someone@elsewhere.example' });
  expect(await lastIn()).toMatchObject({ outcome: 'notTheirs' });
  await post({ to: `ask+${'a'.repeat(24)}@listo.example`, text: 'yes' });
  expect(await lastIn()).toMatchObject({ outcome: 'unknownAddress' });
  expect(await read(number, tomas!)).toMatchObject({ state: 'held', heldFor: 'approval' });
});

test('whichever door comes first counts: after a decision on the page the mail is told so', async () => {
  const { number, mail } = await askAna();
  const [ask] = ((await ana!.call('GET', '/my/asks')).body as { id: string; number: number }[]).filter(
    (each) => each.number === number,
  );
  await ana!.call('POST', `/asks/${ask!.id}/decision`, { decision: 'approve' });
  await answer(mail, 'yes');
  expect(await lastIn()).toMatchObject({ outcome: 'alreadyDecided' });
});

test('a new mail to a team becomes a ticket, once, and its sender is told the number', async () => {
  const mail = {
    from: 'tomas@solvarra.example',
    to: 'onboard@listo.example',
    subject: 'Reader 4 is dead',
    text: 'It shows nothing since nine.',
    messageId: '<one@solvarra.example>',
  };
  await post(mail);
  await post(mail);
  const came = await tables().mailIn.find({ messageId: '<one@solvarra.example>' });
  expect(came).toMatchObject([{ outcome: 'newTicket' }]);
  const ticket = await read(came[0]!.ticketNumber!, bia!);
  expect(ticket).toMatchObject({
    title: 'Reader 4 is dead',
    via: 'mail',
    team: { id: 'onboard' },
    requester: { id: 'tomas' },
  });
  expect(ticket.answers).toMatchObject([{ value: 'It shows nothing since nine.' }]);
  await until(
    () => mailsOf('tomas', /Reader 4 is dead/),
    (mails) => mails.length === 1,
  );
  await post({ ...mail, messageId: '<two@x>', from: 'nobody@elsewhere.example' });
  expect(await lastIn()).toMatchObject({ outcome: 'unknownSender' });
  await post({ ...mail, messageId: '<three@x>', to: 'nosuch@listo.example' });
  expect(await lastIn()).toMatchObject({ outcome: 'unknownAddress' });
});

test('automatic replies are recognised and never answered, and a loop cannot start', async () => {
  const outBefore = await tables().mailOut.find({});
  for (const headers of [
    { 'Auto-Submitted': 'auto-replied' },
    { Precedence: 'bulk' },
    { 'X-Autoreply': 'yes' },
  ] as Record<string, string>[])
    await post({ to: 'helpdesk@listo.example', subject: 'I am away', text: 'Back on Monday', headers });
  await post({ from: 'helpdesk@listo.example', to: 'onboard@listo.example', text: 'from ourselves' });
  const last = await tables().mailIn.find({}, { order: [['at', 'DESC']], limit: 4 });
  expect(last.map(({ outcome }) => outcome)).toEqual(['automatic', 'automatic', 'automatic', 'automatic']);
  expect(await tables().mailOut.find({})).toHaveLength(outBefore.length);
  // A program that does not say that it is one gets a few answers an hour, no more.
  for (let i = 0; i < 9; i++)
    await post({
      from: 'helge@solvarra.example',
      to: 'helpdesk@listo.example',
      subject: `Again ${i}`,
      text: 'again',
    });
  expect(
    (await tables().mailOut.find({ toAddress: 'helge@solvarra.example', template: 'received' })).length,
  ).toBe(6);
});

test.each<[string, Sent, string]>([
  ['an empty body', { from: 'tomas@solvarra.example', to: 'helpdesk@listo.example', text: '' }, 'empty'],
  [
    'malformed MIME',
    {
      from: 'tomas@solvarra.example',
      to: 'helpdesk@listo.example',
      raw: 'From: tomas@solvarra.example\r\nSubject: odd\r\nContent-Type: multipart/mixed; boundary="x\r\n\r\n--x\r\nContent-Type: text/plain; charset=nonsense\r\nContent-Transfer-Encoding: base64\r\n\r\n####',
    },
    'newTicket',
  ],
  [
    'a wrong charset',
    {
      from: 'tomas@solvarra.example',
      to: 'helpdesk@listo.example',
      raw: Buffer.concat([
        Buffer.from(
          'From: tomas@solvarra.example\r\nSubject: =?utf-8?Q?Ol=E1?=\r\nContent-Type: text/plain; charset=utf-8\r\n\r\n',
        ),
        Buffer.from([0xe1, 0xff, 0x00, 0x41]),
      ]),
    },
    'newTicket',
  ],
  [
    'no header at all',
    { from: 'tomas@solvarra.example', to: 'helpdesk@listo.example', raw: '\r\n\r\nHelp' },
    'newTicket',
  ],
])('nothing crashes and all is accounted for: %s', async (_, sent, outcome) => {
  await post(sent);
  expect(await lastIn()).toMatchObject({ outcome });
});

test('30 MB are refused and on record', async () => {
  await expect(
    post({
      from: 'tomas@solvarra.example',
      to: 'helpdesk@listo.example',
      text: 'x'.repeat(31 * 1024 * 1024),
    }),
  ).rejects.toThrow(/552/);
  expect(await lastIn()).toMatchObject({ outcome: 'tooLarge' });
});

test('an answer to a closed ticket stands on its thread', async () => {
  const { number, mail } = await askAna();
  await answer(mail, 'no, not this year');
  await until(
    () => read(number, tomas!),
    ({ state }) => state === 'closed',
  );
  const [told] = await until(
    () => mailsOf('tomas', new RegExp(`\\[${number}\\]`)),
    (mails) => mails.length > 0,
  );
  await post({ from: 'tomas@solvarra.example', to: told!.replyTo, text: 'A pity.' });
  expect(await lastIn()).toMatchObject({ outcome: 'answered', ticketNumber: number });
});

test('texts are written anew, and only administrators see mail', async () => {
  expect((await bia!.call('GET', '/mail/in')).status).toBe(403);
  expect((await bia!.call('GET', '/mail/texts')).status).toBe(403);
  const own = { subject: 'Decide, {name}: {title}', text: '{facts}' };
  const save = (version: number, texts: object | null) =>
    helder!.call('PUT', '/mail/texts/ask', { version, texts });
  expect(await save(0, { en: own, pt: own })).toMatchObject({ status: 200, body: { version: 1 } });
  expect((await save(0, { en: own, pt: own })).status).toBe(409);
  expect((await save(1, { en: { subject: '', text: 'x' }, pt: own })).status).toBe(422);
  const body = {
    serviceId: 'gate-scanner',
    title: 'Own words',
    answers: { site: 'Port Alder', sort: 'hand', count: 1 },
  };
  await tomas!.call('POST', '/tickets', body);
  await until(
    () => mailsOf('ana', /^Decide, Ana Lobo: Own words$/),
    (mails) => mails.length === 1,
  );
  expect((await save(1, null)).status).toBe(200);
  const came = (await helder!.call('GET', '/mail/in?outcome=decided')).body as { outcome: string }[];
  expect(came.length).toBeGreaterThan(0);
  expect(new Set(came.map(({ outcome }) => outcome))).toEqual(new Set(['decided']));
});

test('who wants no mail gets none, but for what waits for their decision', async () => {
  for (const by of [tomas!, ana!]) await by.call('PUT', '/me/mail', { wantsMail: false });
  const { number, mail } = await askAna();
  await answer(mail, 'yes');
  await until(
    () =>
      app.listo.db.tables.notifications.find({ ticketNumber: number, personId: 'tomas', event: 'decided' }),
    (rows) => rows.length === 1,
  );
  expect(await tables().mailOut.find({ ticketNumber: number, toId: 'tomas' })).toEqual([]);
});

test('where the team wants it, a new mail is answered with the article that may solve it; “solved” ends it', async () => {
  const helder = await app.as('helder');
  const both = (en: string) => ({ en, pt: '' });
  const article = {
    ...{
      teamId: 'desk',
      ownerId: 'bia',
      place: 'desk',
      labels: [],
      isOpen: false,
      audience: [],
      reviewAt: null,
    },
    ...{
      title: both('A printer that prints blank'),
      body: both('Turn the **drum** once.'),
      otherWords: both(''),
    },
    fromTicket: null,
  };
  const { id } = (await helder.call('POST', '/knowledge/articles', article)).body as { id: string };
  await helder.call('POST', `/knowledge/articles/${id}/moves`, { to: 'published', version: 1 });
  const matter = {
    ...{ name: both('A printer prints blank'), note: '', question: both(''), serviceId: 'printing' },
    ...{ isForAgents: false, isOn: true, steps: [{ kind: 'article', articleId: id }, { kind: 'ticket' }] },
    phrasings: [
      'printer prints blank pages',
      'blank pages',
      'the printer is blank',
      'pages come out white',
    ].map((text) => ({ text, language: 'en' })),
  };
  expect((await helder.call('POST', '/workshop/matters', matter)).status).toBe(200);
  await readLearned(app.listo, 'employees', { isNewest: true });
  const mail = {
    ...{ from: 'tomas@solvarra.example', to: 'onboard@listo.example', messageId: '<blank-1@x>' },
    ...{ subject: 'Printer prints blank pages', text: 'The printer prints blank pages since today.' },
  };
  // The team does not want it yet: its sender is told the number alone.
  await post(mail);
  const team = async (teamId: string) => (await tables().teams.findOne({ id: teamId }))!;
  const want = async (teamId: string) =>
    helder.call('PATCH', `/teams/${teamId}`, { version: (await team(teamId)).version, answersMail: true });
  expect((await want('people')).status).toBe(422);
  expect((await want('onboard')).status).toBe(200);
  const letter = `Dear all,\n${mail.text}\nThanks a lot\nTomás Veiga\nPort Alder, ticket hall`;
  await post({ ...mail, text: letter, messageId: '<blank-2@x>' });
  const mails = await until(
    () => mailsOf('tomas', /Printer prints blank/),
    (all) => all.length === 2,
  );
  const [first, second] = mails.toSorted((one, other) => one.at - other.at);
  expect(first!.text).not.toContain('drum');
  expect(second!.text).toContain('Turn the drum once.');
  expect(second!.text).toContain(`/ask/articles/${id}`);

  const { ticketNumber } = (await tables().mailIn.find({ messageId: '<blank-2@x>' }))[0]!;
  const reply = { from: mail.from, to: second!.replyTo, subject: `Re: ${second!.subject}` };
  await post({ ...reply, text: 'Solved, but please look at the noise.', messageId: '<more@x>' });
  expect((await read(ticketNumber!, bia!)).state).toBe('received');
  await post({ ...reply, text: 'Solved.', messageId: '<solved@x>' });
  expect((await read(ticketNumber!, bia!)).state).toBe('withdrawn');
  expect(await lastIn()).toMatchObject({ outcome: 'answered', detail: 'solved', ticketNumber });
  const { counts } = (await helder.call('GET', `/knowledge/articles/${id}`)).body as { counts: object };
  expect(counts).toMatchObject({ shown: 1, helped: 1, deflected: 1 });
});
