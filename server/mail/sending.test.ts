import type { Database } from '../database/database';
import { openDatabase } from '../openDatabase';
import { startTestListo, until, type TestListo } from '../testing/harness';
import { startMailServer, type MailServer } from '../testing/mailServer';
import type { MailOutRow } from './model';
import { startSender } from './sender';

/** What leaves by mail: in order within a thread, and once, whatever the mail server and other processes do. */
let app: TestListo;
let db: Database;
beforeAll(async () => {
  // No process sends here but the senders of a test.
  app = await startTestListo('sending', { isEmpty: true });
  await app.stop();
  db = openDatabase(app.databaseUrl);
});
afterEach(() => db.run('DELETE FROM mail_out'));
afterAll(() => db.close());

let count = 0;
function put(subject: string, more: Partial<MailOutRow> = {}): Promise<unknown> {
  const at = app.clock.now();
  return db.tables.mailOut.insert({
    ...{ id: `s${String(++count).padStart(4, '0')}`, at, nextAt: at, subject, template: 'done', toId: null },
    ...{ toAddress: 'ana@solvarra.example', fromName: 'Desk', fromAddress: 'desk@listo.example' },
    ...{ replyTo: 'desk@listo.example', ticketNumber: 1, isReply: false, state: 'waiting', tries: 0 },
    ...{ text: 'x', language: 'en', sentAt: null, error: null, ...more },
  } as MailOutRow);
}
const waiting = () => db.tables.mailOut.find({ state: 'waiting' });
const allSent = () => until(waiting, (rows) => rows.length === 0);
const send = (door: MailServer) => startSender({ ...app.listo, db }, door.url);

test('what follows in a thread waits for what stands before it; other threads do not', async () => {
  const door = await startMailServer();
  door.refuses(/^question$/);
  const at = app.clock.now();
  await put('question', { at });
  await put('answer', { at: at + 1 });
  await put('another matter', { at: at + 2, ticketNumber: 2 });
  await put('the same to someone else', { at: at + 3, toAddress: 'rui@solvarra.example' });
  const sender = send(door);
  await until(
    () => Promise.resolve(door.taken),
    (taken) => taken.length === 2,
  );
  expect([...door.taken].sort()).toEqual(['another matter', 'the same to someone else']);
  // Also once its own time has come: the server takes it again, but what is before it goes first.
  door.refuses(null);
  app.clock.pass(3_600_000);
  await allSent();
  expect(door.taken.slice(2)).toEqual(['question', 'answer']);
  await sender.stop();
  await door.end();
});

test('a slow mail server and a second process that is idle: each mail goes once', async () => {
  const door = await startMailServer({ slowMs: 40 });
  for (let i = 0; i < 12; i++) await put(`mail ${i}`, { ticketNumber: 100 + i });
  const senders = [send(door), send(door)];
  // The lease of what was claimed runs out while the first ones are still on their way.
  await until(
    () => Promise.resolve(door.taken.length),
    (sent) => sent >= 2,
  );
  app.clock.pass(61_000);
  await allSent();
  await Promise.all(senders.map((sender) => sender.stop()));
  expect([...door.taken].sort()).toEqual(Array.from({ length: 12 }, (_, i) => `mail ${i}`).sort());
  await door.end();
});

test('a clock that was set back an hour holds no mail up', async () => {
  const door = await startMailServer();
  await put('from the future', { nextAt: app.clock.now() + 3_600_000 });
  const sender = send(door);
  await allSent();
  expect(door.taken).toEqual(['from the future']);
  await sender.stop();
  await door.end();
});

test('what a server refuses for good is given up, and what is behind it goes', async () => {
  const at = app.clock.now();
  const door = await startMailServer();
  door.refuses(/^to nobody$/, 550);
  await put('to nobody', { at });
  await put('to ana', { at: at + 1 });
  const sender = send(door);
  await allSent();
  const rows = await db.tables.mailOut.find({}, { order: ['at'] });
  expect(rows.map(({ subject, state, tries }) => [subject, state, tries])).toEqual([
    ['to nobody', 'failed', 1],
    ['to ana', 'sent', 1],
  ]);
  expect(rows[0]!.error).toContain('not taken');
  await sender.stop();
  await door.end();
});
