import { Webhook } from 'standardwebhooks';
import type { OutgoingCall } from '../../contract/calls';
import type { DeliveryView, WebhookBody, WebhookView } from '../../contract/webhooks';
import { ALWAYS } from '../../core/conditions';
import { KIOSK } from '../testing/chat';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { makeProgram } from '../testing/programs';
import { startReceiver } from '../testing/receiver';

/** What other programs are told: signed, once, in order, again where it was not taken, and never what they may not read. */
let app: TestListo;
let [helder, tomas]: Person[] = [];
let receiver: Awaited<ReturnType<typeof startReceiver>>;
beforeAll(async () => {
  receiver = await startReceiver();
  app = await startTestListo('webhooks', { env: { LISTO_OUTGOING_HOSTS: receiver.url } });
  [helder, tomas] = await Promise.all(['helder', 'tomas'].map(app.as));
});
afterAll(async () => {
  await app.end();
  receiver.end();
});
beforeEach(() => {
  receiver.came.length = 0;
  receiver.answerWith({ status: 204 });
});
afterEach(async () => {
  await app.listo.db.run('UPDATE webhooks SET isOn = FALSE');
});

const HOUR_MS = 3_600_000;
const onboard = { teamId: 'onboard', role: 'agent' as const };
const typeOf = (answer: { body: unknown }): string => (answer.body as { type: string }).type;
const report = async (title: string): Promise<number> =>
  (
    (await tomas!.call('POST', '/tickets', { serviceId: 'kiosk', title, answers: KIOSK })).body as {
      number: number;
    }
  ).number;
const webhookBody = (given: Partial<WebhookBody> = {}): WebhookBody => ({
  ...{ name: 'To payroll', address: `${receiver.url}/told`, kinds: [], provided: ALWAYS },
  ...given,
});

type Made = { id: string; secret: string; programId: string };
async function make(given: Partial<WebhookBody> = {}, teams = [onboard]): Promise<Made> {
  const program = await makeProgram(app, { teams });
  const path = `/workshop/programs/${program.id}/webhooks`;
  const { body } = await helder!.call('POST', path, webhookBody(given));
  return { ...(body as { id: string; secret: string }), programId: program.id };
}
/** Tried and switched on. */
async function makeWorking(given: Partial<WebhookBody> = {}, teams = [onboard]): Promise<Made> {
  const made = await make(given, teams);
  await helder!.call('POST', `/workshop/webhooks/${made.id}/trials`);
  const on = { version: 1, isOn: true };
  expect((await helder!.call('PUT', `/workshop/webhooks/${made.id}/state`, on)).status).toBe(200);
  receiver.came.length = 0;
  return made;
}
const viewOf = async ({ programId, id }: Made): Promise<WebhookView> => {
  const { body } = await helder!.call('GET', `/workshop/programs/${programId}/webhooks`);
  return (body as WebhookView[]).find((each) => each.id === id)!;
};
const deliveriesOf = async ({ id }: Made): Promise<DeliveryView[]> =>
  ((await helder!.call('GET', `/workshop/webhooks/${id}/deliveries`)).body as { rows: DeliveryView[] }).rows;
type Told = {
  type: string;
  timestamp: string;
  data: { ticket: { number: number; title: string }; changes: object };
};
const told = (): Told[] => receiver.came.map(({ body }) => JSON.parse(body) as Told);
const ofTickets = (...numbers: number[]): Told[] =>
  told().filter(({ data }) => numbers.includes(data.ticket.number));
/** Waits until the webhooks' consumer has handled all that is in the journal by now. */
const settle = () =>
  until(
    () =>
      app.listo.db.select<{ isThere: number }>(
        `SELECT c.position >= (SELECT MAX(id) FROM journal WHERE position IS NOT NULL) AND
           NOT EXISTS (SELECT 1 FROM journal WHERE position IS NULL) AS isThere FROM consumers c WHERE c.name = 'webhooks'`,
      ),
    ([row]) => Boolean(row!.isThere),
  );

test('only administrators set what is told', async () => {
  const { id, programId } = await make();
  for (const [method, path] of [
    ['GET', `/workshop/programs/${programId}/webhooks`],
    ['GET', `/workshop/webhooks/${id}/deliveries`],
    ['POST', `/workshop/webhooks/${id}/trials`],
    ['GET', '/workshop/calls'],
  ] as const)
    expect((await tomas!.call(method, path)).status).toBe(403);
});

test('it is tried before it is switched on, and another address is tried anew', async () => {
  const hook = await make();
  const state = `/workshop/webhooks/${hook.id}/state`;
  const refused = await helder!.call('PUT', state, { version: 1, isOn: true });
  expect(typeOf(refused)).toBe('/problems/webhookNotTried');
  receiver.answerWith({ status: 500, text: 'not yet' });
  const trial = () => helder!.call('POST', `/workshop/webhooks/${hook.id}/trials`);
  expect((await trial()).body).toMatchObject({ isTaken: false, status: 500, answer: 'not yet' });
  expect(typeOf(await helder!.call('PUT', state, { version: 1, isOn: true }))).toBe(
    '/problems/webhookNotTried',
  );
  receiver.answerWith({ status: 200, text: 'thanks' });
  await report('Something to show');
  const taken = await trial();
  expect(taken.body).toMatchObject({ isTaken: true, status: 200, answer: 'thanks' });
  expect(told().at(-1)).toMatchObject({ data: { isExample: true } });
  expect((await helder!.call('PUT', state, { version: 1, isOn: true })).status).toBe(200);
  const moved = { ...webhookBody({ address: `${receiver.url}/elsewhere` }), version: 2 };
  await helder!.call('PUT', `/workshop/webhooks/${hook.id}`, moved);
  expect(await viewOf(hook)).toMatchObject({ isOn: false, triedAt: null });
});

test('what happens to a ticket is told once, in its order, signed so that a reference library believes it', async () => {
  const hook = await makeWorking();
  const number = await report('Kiosk 3 is dark');
  const rui = await app.as('rui');
  const { version } = (await rui.call('GET', `/tickets/${number}`)).body as { version: number };
  await rui.call('POST', `/tickets/${number}/moves`, { name: 'take', by: 'agent', version, input: {} });
  await until(
    () => Promise.resolve(ofTickets(number)),
    (events) => events.some(({ type }) => type === 'ticket.taken'),
  );
  const types = ofTickets(number).map(({ type }) => type);
  expect(types[0]).toBe('ticket.sent');
  expect(new Set(types).size).toBe(types.length);
  const taken = ofTickets(number).find(({ type }) => type === 'ticket.taken')!;
  expect(taken.data).toMatchObject({
    ticket: { title: 'Kiosk 3 is dark', requester: { id: 'tomas' }, state: 'inWork' },
    changes: { state: { from: 'received', to: 'inWork' } },
    by: { id: 'rui' },
  });
  for (const { headers, body } of receiver.came)
    expect(new Webhook(hook.secret).verify(body, headers as Record<string, string>)).toBeTruthy();
  expect(() =>
    new Webhook('whsec_MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw').verify(
      ...([receiver.came[0]!.body, receiver.came[0]!.headers] as [string, Record<string, string>]),
    ),
  ).toThrow();
});

test('only the kinds that it names, and only on tickets on which its condition holds', async () => {
  await makeWorking({
    kinds: ['sent'],
    provided: { field: 'title', op: 'contains', value: 'gangway' } as never,
  });
  const [one, other] = [await report('The gangway is stuck'), await report('The kiosk is stuck')];
  await settle();
  const events = await until(
    () => Promise.resolve(ofTickets(one)),
    (came) => came.length > 0,
  );
  expect(events.map(({ type }) => type)).toEqual(['ticket.sent']);
  expect(ofTickets(other)).toEqual([]);
});

test('nothing of a team in confidence is told, not even to a program of that team', async () => {
  const hook = await makeWorking({}, [{ teamId: 'people', role: 'agent' }, onboard]);
  const lena = await app.as('lena');
  const letter = { serviceId: 'letter', title: 'A letter', answers: { about: 'salary', language: 'en' } };
  const answer = await lena.call('POST', '/tickets', letter);
  expect(answer.status).toBe(200);
  const { number } = answer.body as { number: number };
  expect(await app.listo.db.tables.tickets.findOne({ number })).toMatchObject({ isConfidential: true });
  const seen = await report('Not in confidence');
  await settle();
  await until(
    () => Promise.resolve(ofTickets(seen)),
    (came) => came.length > 0,
  );
  expect((await deliveriesOf(hook)).filter(({ ticketNumber }) => ticketNumber === number)).toEqual([]);
});

test('a receiver that is away for two days is told all of it, in order, when it is back', async () => {
  const hook = await makeWorking({ kinds: ['sent'] });
  receiver.answerWith({ status: 503 });
  const numbers = [await report('First'), await report('Second'), await report('Third')];
  await until(
    async () => (await viewOf(hook)).waiting,
    (waiting) => waiting === 3,
  );
  for (let tries = 1; tries <= 5; tries++) {
    await until(
      () => deliveriesOf(hook),
      // On a slow machine one may have been tried again already.
      (deliveries) => deliveries.every((each) => each.tries >= tries),
    );
    if (tries < 5) app.clock.pass(12 * HOUR_MS);
  }
  expect((await viewOf(hook)).waiting).toBe(3);
  receiver.answerWith({ status: 200 });
  receiver.came.length = 0;
  app.clock.pass(24 * HOUR_MS);
  await until(
    async () => (await viewOf(hook)).waiting,
    (waiting) => waiting === 0,
  );
  expect(new Set(ofTickets(...numbers).map(({ data }) => data.ticket.number))).toEqual(new Set(numbers));
  expect((await deliveriesOf(hook)).map(({ state }) => state)).toEqual([
    'delivered',
    'delivered',
    'delivered',
  ]);
});

test('while the first event of a ticket is not taken, the next one of it waits', async () => {
  const hook = await makeWorking({ kinds: ['sent', 'taken'] });
  receiver.answerWith({ status: 503 });
  const number = await report('One after the other');
  const rui = await app.as('rui');
  const { version } = (await rui.call('GET', `/tickets/${number}`)).body as { version: number };
  await rui.call('POST', `/tickets/${number}/moves`, { name: 'take', by: 'agent', version, input: {} });
  const triesOf = async (): Promise<number[]> => (await deliveriesOf(hook)).map(({ tries }) => tries);
  await until(triesOf, (tries) => tries.length === 2 && tries[1] === 1);
  app.clock.pass(61_000);
  await until(triesOf, (tries) => tries[1] === 2);
  expect(ofTickets(number).map(({ type }) => type)).toEqual(['ticket.sent', 'ticket.sent']);
  receiver.answerWith({ status: 200 });
  app.clock.pass(HOUR_MS);
  await until(
    async () => (await viewOf(hook)).waiting,
    (waiting) => waiting === 0,
  );
  expect(ofTickets(number).at(-1)!.type).toBe('ticket.taken');
});

test('what was given up is kept, looked at, and sent by hand; the receiver knows it by its id', async () => {
  const hook = await makeWorking({ kinds: ['sent'] });
  await report('Given up');
  const [delivery] = await until(
    () => deliveriesOf(hook),
    ([first]) => first?.state === 'delivered',
  );
  await app.listo.db.run("UPDATE webhook_deliveries SET state = 'undelivered', tries = 10 WHERE id = :id", {
    id: delivery!.id,
  });
  expect(await viewOf(hook)).toMatchObject({ undelivered: 1, waiting: 0 });
  const read = await helder!.call('GET', `/workshop/deliveries/${delivery!.id}`);
  expect(JSON.parse((read.body as { body: string }).body)).toMatchObject({ type: 'ticket.sent' });
  const again = await helder!.call('POST', `/workshop/webhooks/${hook.id}/deliveries`);
  expect(again.body).toEqual({ count: 1 });
  await until(
    async () => (await deliveriesOf(hook))[0]!.state,
    (state) => state === 'delivered',
  );
  const ids = receiver.came.map(({ headers }) => headers['webhook-id']);
  expect(ids.filter((id) => id === delivery!.messageId)).toHaveLength(2);
});

test('a receiver that is gone for good (410) is told nothing more', async () => {
  const hook = await makeWorking({ kinds: ['sent'] });
  receiver.answerWith({ status: 410 });
  await report('To nobody');
  await until(
    () => viewOf(hook),
    ({ isOn, undelivered }) => !isOn && undelivered === 1,
  );
});

test('an address inside, with a password or not over TLS is refused when it is written', async () => {
  for (const address of [
    'http://example.org/x',
    'https://127.0.0.1/x',
    'https://u:p@example.org/',
    'nothing',
  ]) {
    const { id } = await makeProgram(app);
    const { status, body } = await helder!.call(
      'POST',
      `/workshop/programs/${id}/webhooks`,
      webhookBody({ address }),
    );
    expect([status, (body as { fields: object[] }).fields]).toEqual([
      422,
      [{ field: 'address', code: 'addressNotAllowed' }],
    ]);
  }
});

test('each call is on record, without what may be a secret in its address', async () => {
  const hook = await make({ address: `${receiver.url}/told?token=hidden` });
  await helder!.call('POST', `/workshop/webhooks/${hook.id}/trials`);
  receiver.answerWith({ status: 500 });
  await helder!.call('POST', `/workshop/webhooks/${hook.id}/trials`);
  const list = async (query: string): Promise<OutgoingCall[]> =>
    ((await helder!.call('GET', `/workshop/calls${query}`)).body as { rows: OutgoingCall[] }).rows;
  const [last, before] = await list('');
  expect([last, before]).toMatchObject([
    { kind: 'webhook', ref: hook.id, status: 500, address: `${receiver.url}/told` },
    { kind: 'webhook', ref: hook.id, status: 204 },
  ]);
  expect((await list('?only=failed')).every(({ status }) => status === null || status > 299)).toBe(true);
});

test('the secret lies sealed in the database', async () => {
  const hook = await make();
  const row = (await app.listo.db.tables.webhooks.findOne({ id: hook.id }))!;
  expect(row.sealedSecret).not.toContain(hook.secret.slice(6));
  expect(JSON.stringify(await viewOf(hook))).not.toContain(row.sealedSecret);
});

test('what is done away with takes what is in line for it along', async () => {
  const hook = await makeWorking({ kinds: ['sent'] });
  receiver.answerWith({ status: 503 });
  await report('In line');
  await until(
    async () => (await viewOf(hook)).waiting,
    (waiting) => waiting === 1,
  );
  await helder!.call('DELETE', `/workshop/webhooks/${hook.id}`);
  expect(await app.listo.db.tables.deliveries.find({ webhookId: hook.id })).toEqual([]);
});
