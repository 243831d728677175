import { createTransport } from 'nodemailer';
import { readdir } from 'node:fs/promises';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/**
 * Inputs made to keep the server busy. Each is refused or read with a bound on work, and others are answered meanwhile:
 * the longest stretch in which nobody is answered is compared with what everyday work takes in the same run.
 */
let app: TestListo;
let [rui, helder, tomas]: Person[] = [];
/** How long four hundred ordinary requests take on this machine, in ms. */
let everyday = 0;
beforeAll(async () => {
  app = await startTestListo('attack_slow');
  [rui, helder, tomas] = await Promise.all(['rui', 'helder', 'tomas'].map(app.as));
  const begun = performance.now();
  for (let i = 0; i < 400; i++) await fetch(`${app.url}/healthz`);
  everyday = performance.now() - begun;
});
afterAll(() => app.end());

/** Runs some work in this process, which is the server's too. @returns the longest that nothing else ran, in ms */
async function longestHold(work: () => Promise<unknown>): Promise<number> {
  const delay = monitorEventLoopDelay({ resolution: 5 });
  delay.enable();
  await work();
  // The last hold is measured once the loop turns again.
  const { count } = delay;
  await until(
    () => Promise.resolve(delay.count),
    (now) => now > count,
  );
  delay.disable();
  return delay.max / 1e6;
}

const mega = (part: string, bytes: number): string => part.repeat(Math.ceil(bytes / part.length));

async function sendTable(text: string) {
  const form = new FormData();
  form.append('file', new Blob([text]), 'table.csv');
  return rui!.call('POST', '/imports', form);
}

test.each<[string, string]>([
  ['nothing but line ends', mega('\n', 20_000_000)],
  ['nothing but commas', mega(',', 20_000_000)],
  ['a quote that is never closed', `a,b\n"${mega('x,y\n', 6_000_000)}`],
  ['one line of a million columns', `${mega('a;', 1_900_000)}\n1;2\n`],
])(
  'a table of %s is refused, nothing of it is kept, and others are answered',
  async (_, text) => {
    let answer: Awaited<ReturnType<typeof sendTable>>;
    const begun = performance.now();
    const hold = await longestHold(async () => (answer = await sendTable(text)));
    expect(performance.now() - begun).toBeLessThan(8 * everyday);
    expect(answer!.status).toBe(422);
    expect((answer!.body as { type: string }).type).toMatch(/table(TooLong|NotRead)/);
    expect(hold).toBeLessThan(3 * everyday);
    const kept = await readdir(app.dataDir, { recursive: true });
    expect(kept.filter((name) => /table/.test(name))).toEqual([]);
    expect(await app.listo.db.tables.imports.find({})).toEqual([]);
  },
  60_000,
);

const nested = (depth: number): string =>
  `${'{"all":['.repeat(depth)}{"field":"title","op":"is","value":"x"}${']}'.repeat(depth)}`;

test.each([60, 5_000, 20_000])('a condition nested %i deep is refused', async (depth) => {
  const body = `{"name":"Deep","teamId":null,"definition":{"condition":${nested(depth)}}}`;
  const Cookie = (
    await fetch(`${app.url}/api/v1/session/demo`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{"personId":"rui"}',
    })
  ).headers
    .getSetCookie()[0]!
    .split(';')[0]!;
  let status = 0;
  const hold = await longestHold(async () => {
    ({ status } = await fetch(`${app.url}/api/v1/worklists`, {
      ...{ method: 'POST', headers: { 'Content-Type': 'application/json', Cookie }, body },
    }));
  });
  expect([413, 422]).toContain(status);
  expect(hold).toBeLessThan(3 * everyday);
});

test.each([
  ['two centuries of seconds', 'DTSTART:18260101T000000Z\r\nRRULE:FREQ=SECONDLY'],
  ['the far future', 'DTSTART:99260101T000000Z\r\nRRULE:FREQ=MINUTELY;INTERVAL=1'],
  ['a day that never is', 'DTSTART;VALUE=DATE:20260228\r\nRRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30'],
])('an iCalendar of four lines (%s) holds nobody up', async (_, event) => {
  const { body } = await helder!.call('GET', '/calendars');
  const { spec } = (body as { id: string; spec: object }[]).find(({ id }) => id === 'office')!;
  const text = `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Away\r\n${event}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`;
  let status = 0;
  const hold = await longestHold(
    async () => ({ status } = await helder!.call('POST', '/calendars/office/icalendar', { text, spec })),
  );
  expect([200, 422]).toContain(status);
  expect(hold).toBeLessThan(3 * everyday);
});

test.each<[string, string]>([
  ['HTML nested deep', `<html><body>${mega('<div><b>', 1_500_000)}help`],
  ['HTML of tables in tables', `<html><body>${mega('<table><tr><td>', 1_500_000)}help`],
  ['entities without end', `<html><body>${mega('&amp;&lt;', 2_000_000)}`],
])(
  'a mail of %s is accounted for, and others are answered meanwhile',
  async (_, html) => {
    const messageId = `<slow-${html.length}-${Math.abs(html.charCodeAt(14))}@x>`;
    const transport = createTransport({
      ...{ host: '127.0.0.1', port: app.mailPort, secure: false, ignoreTLS: true },
    });
    const hold = await longestHold(async () => {
      await transport.sendMail({
        ...{ from: 'tomas@solvarra.example', to: 'helpdesk@listo.example', subject: 'Slow', html, messageId },
      });
      await until(
        () => app.listo.db.tables.mailIn.findOne({ messageId }),
        (row) => row !== null,
      );
    });
    transport.close();
    expect(hold).toBeLessThan(5 * everyday);
  },
  60_000,
);

/** Texts from before there was a bound, as they stand in the database. */
const OLD = ['> '.repeat(9_000), '[a]('.repeat(12_500), `${'*'.repeat(30_000)}a`];

test('one bad article from before fails no list, no search, and opens', async () => {
  const { listo } = app;
  const at = app.clock.now();
  for (const [i, text] of OLD.entries()) {
    const words = { title: { en: `Harbour radio ${i}`, pt: '' }, body: { en: text, pt: '' } };
    const otherWords = { en: '', pt: '' };
    await listo.db.tables.articles.insert({
      ...{ id: `bad-${i}`, teamId: 'onboard', ownerId: 'rui', state: 'published', place: 'gate', labels: [] },
      ...{ isOpen: true, audience: [], reviewAt: null, ...words, otherWords, version: 2 },
      ...{ published: { ...words, otherWords }, publishedVersion: 1, publishedAt: at, fromTicket: null },
      ...{ createdAt: at, changedAt: at },
    } as never);
  }
  for (const address of ['/knowledge/search?q=harbour%20radio', '/articles/bad-0', '/articles'])
    expect({ address, status: (await tomas!.call('GET', address)).status }).toEqual({ address, status: 200 });
  expect((await rui!.call('GET', '/knowledge/articles')).status).toBe(200);
  const found = (await tomas!.call('GET', '/knowledge/search?q=harbour%20radio')).body as { id: string }[];
  expect(found.map(({ id }) => id).sort()).toEqual(['bad-0', 'bad-1', 'bad-2']);
});

test('one bad message from before takes no ticket down', async () => {
  const made = await tomas!.call('POST', '/tickets', {
    ...{ serviceId: 'kiosk', title: 'Kiosk' },
    answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
  });
  const { number } = made.body as { number: number };
  expect(
    (
      await rui!.call('POST', `/tickets/${number}/messages`, {
        ...{ text: 'Look at this', format: 'rich', readBy: 'team' },
      })
    ).status,
  ).toBe(200);
  for (const text of OLD) {
    await app.listo.db.run('UPDATE messages SET text = :text WHERE ticketNumber = :number', { text, number });
    const { status, body } = await rui!.call('GET', `/tickets/${number}`);
    expect(status).toBe(200);
    expect(JSON.stringify(body)).toContain(text.slice(0, 40));
  }
});

test('what takes long to read is refused where it is written', async () => {
  const draft = {
    ...{ teamId: 'onboard', ownerId: 'rui', place: 'gate', labels: [], isOpen: false, audience: [] },
    ...{ reviewAt: null, fromTicket: null, otherWords: { en: '', pt: '' }, title: { en: 'Slow', pt: '' } },
  };
  for (const text of OLD) {
    const { status } = await rui!.call('POST', '/knowledge/articles', {
      ...draft,
      body: { en: text, pt: '' },
    });
    expect(status).toBe(422);
  }
});
