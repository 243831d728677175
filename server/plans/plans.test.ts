import { factsOfEntry } from '../../core/journal';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { PlanStepView, PlanView } from '../../contract/plans';
import type { Ticket, TicketRow } from '../../contract/tickets';
import type { CalendarSpec } from '../../core/calendar';
import type { ServicePlan } from '../../core/plans';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** A request that several teams fulfil in their order, from asking to the last step. */
let app: TestListo;
let [ana, aro, olav, iben, clara, sofia, jonas, bia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('plans', { startsAt: Date.parse('2026-11-23T09:00:00Z') });
  // A Monday morning.
  const names = ['ana', 'aro', 'olav', 'iben', 'clara', 'sofia', 'jonas', 'bia'];
  [ana, aro, olav, iben, clara, sofia, jonas, bia] = await Promise.all(names.map(app.as));
});
afterAll(() => app.end());

const MINUTE = 60_000;
const transfer = {
  serviceId: 'crew-transfer',
  requesterId: 'lena',
  title: 'Lena Storm moves to Port Alder',
  answers: { from: 'Fenwick Sound', to: 'Port Alder', day: '2026-12-04', gear: true, size: 's' },
};
async function raise(by: Person, body: object = transfer): Promise<number> {
  const answer = await by.call('POST', '/tickets', body);
  expect(answer.status).toBe(200);
  return (answer.body as { number: number }).number;
}
const read = async (number: number, by: Person = bia!): Promise<Ticket> =>
  (await by.call('GET', `/tickets/${number}`)).body as Ticket;
const planOf = async (number: number, by?: Person): Promise<PlanView> => (await read(number, by)).plan!;
const stepsOf = (plan: PlanView): PlanStepView[] => plan.legs.flatMap(({ steps }) => steps);
const stepOf = async (number: number, id: string, by?: Person): Promise<PlanStepView> =>
  stepsOf(await planOf(number, by)).find((step) => step.id === id)!;
const statesOf = async (number: number): Promise<Record<string, string>> =>
  Object.fromEntries(stepsOf(await planOf(number)).map(({ id, state }) => [id, state]));
async function say(by: Person, number: number, decision: 'approve' | 'decline'): Promise<void> {
  const { body } = await by.call('GET', '/my/asks');
  const ask = (body as { id: string; number: number }[]).find((each) => each.number === number);
  const answer = await by.call('POST', `/asks/${ask!.id}/decision`, { decision, words: 'As agreed.' });
  expect(answer.status).toBe(200);
}
async function move(
  by: Person,
  number: number,
  stepId: string,
  name: string,
  more: object = {},
): Promise<number> {
  const { version } = await stepOf(number, stepId);
  const answer = await by.call('POST', `/tickets/${number}/steps/${stepId}/moves`, {
    name,
    version,
    ...more,
  });
  return answer.status;
}

test('a request with a plan goes its whole way: agreed by two of three, four teams, rights by themselves, the welcome', async () => {
  const number = await raise(aro!);
  const raised = await read(number);
  expect(raised).toMatchObject({ state: 'held', heldFor: 'approval' });
  const [approval] = raised.approvals;
  expect(approval!.asks.map(({ voter }) => voter.id).sort()).toEqual(['ana', 'iben', 'olav']);
  // Said to the quarter of an hour.
  const toSpare = raised.plan!.promisedAt - raised.plan!.forecastAt;
  expect(Math.abs(toSpare)).toBeLessThan(15 * MINUTE);
  expect(raised.plan!.promisedAt % (15 * MINUTE)).toBe(0);
  expect(await stepOf(number, 'contract')).toMatchObject({ state: 'waiting', waitsFor: [{ en: 'Agree' }] });
  // Who raised it for her goes on reading of it.
  expect((await aro!.call('GET', `/tickets/${number}`)).status).toBe(200);

  await say(olav!, number, 'approve');
  await say(iben!, number, 'approve');
  const states = await until(
    () => statesOf(number),
    ({ consent }) => consent === 'done',
  );
  expect(states).toMatchObject({ contract: 'active', centre: 'active', gear: 'active', rights: 'waiting' });
  // Neither asked for: left out as soon as it would have been their turn.
  expect(states).toMatchObject({ tablet: 'skipped', berth: 'skipped' });
  expect((await read(number)).state).toBe('received');

  expect(await move(clara!, number, 'centre', 'take')).toBe(200);
  expect(await stepOf(number, 'centre')).toMatchObject({ assignee: { id: 'clara' } });
  expect(await move(clara!, number, 'contract', 'finish')).toBe(403);
  expect(await move(clara!, number, 'centre', 'finish')).toBe(200);
  expect(await move(sofia!, number, 'contract', 'tick', { ticked: [1, 1] })).toBe(200);
  expect((await stepOf(number, 'contract')).checklist.map(({ isTicked }) => isTicked)).toEqual([false, true]);
  expect(await move(sofia!, number, 'contract', 'finish')).toBe(200);
  expect(await statesOf(number)).toMatchObject({ rights: 'waiting' });
  expect(await move(jonas!, number, 'gear', 'finish')).toBe(200);

  // The directory answers, the list is written: both by themselves.
  await until(
    () => statesOf(number),
    ({ rights, list }) => rights === 'done' && list === 'done',
  );
  expect((await read(number)).answers).toBeDefined();
  expect(await stepOf(number, 'how')).toMatchObject({
    state: 'waiting',
    waitsFor: [{ en: 'Welcome at the base' }],
  });
  await move(bia!, number, 'welcome', 'finish');
  await move(bia!, number, 'how', 'finish');
  const done = await read(number);
  expect(done).toMatchObject({ state: 'done', solution: 'You have moved. Welcome at your new base.' });
  expect(done.plan!.finishedAt).not.toBeNull();
});

test('a team has its step in its worklists from the moment it is its turn, and is told', async () => {
  const number = await raise(aro!, { ...transfer, title: 'Second' });
  const rowsOf = async (by: Person, list: string): Promise<TicketRow[]> => {
    const { body } = await by.call('GET', `/worklists/${list}`);
    return (body as { rows: TicketRow[] }).rows.filter((row) => row.number === number);
  };
  expect(await rowsOf(clara!, 'nextUp')).toEqual([]);
  await say(olav!, number, 'approve');
  await say(iben!, number, 'approve');
  const [row] = await until(
    () => rowsOf(clara!, 'nextUp'),
    (rows) => rows.length > 0,
  );
  expect(row).toMatchObject({ step: { id: 'centre', name: { en: 'Cost centre' } }, team: { id: 'finance' } });
  expect(await rowsOf(clara!, 'unassigned')).toHaveLength(1);
  const told = await until(
    () => app.listo.db.tables.notifications.find({ ticketNumber: number, personId: 'clara' }),
    (rows) => rows.length > 0,
  );
  expect(told.map(({ event }) => event)).toEqual(['stepYours']);
  await move(clara!, number, 'centre', 'take');
  expect(await rowsOf(clara!, 'unassigned')).toEqual([]);
  expect(await rowsOf(clara!, 'mine')).toHaveLength(1);
  await move(clara!, number, 'centre', 'finish');
  expect(await rowsOf(clara!, 'mine')).toEqual([]);
});

test('declined out of reach, the request is closed and nothing of it is left to do', async () => {
  const number = await raise(aro!, { ...transfer, title: 'Third' });
  await say(olav!, number, 'decline');
  expect((await read(number)).state).toBe('held');
  await say(iben!, number, 'decline');
  await until(
    () => read(number),
    ({ state }) => state === 'closed',
  );
  expect(await read(number)).toMatchObject({ isDeclined: true });
  expect(new Set(Object.values(await statesOf(number)))).toEqual(new Set(['failed', 'skipped']));
});

test('withdrawn, its asks and steps are withdrawn with it', async () => {
  const number = await raise(aro!, { ...transfer, title: 'Fourth' });
  const { version } = await read(number);
  const by = { name: 'withdraw', by: 'agent', version, input: { reason: 'Not any more.' } };
  expect((await bia!.call('POST', `/tickets/${number}/moves`, by)).status).toBe(200);
  expect((await read(number)).approvals[0]!.outcome).toBe('withdrawn');
  expect(new Set(Object.values(await statesOf(number)))).toEqual(new Set(['skipped']));
  expect(await move(bia!, number, 'welcome', 'leaveOut', { reason: 'x' })).toBe(409);
});

test('a step may be left out with a reason, and one that was done be done anew', async () => {
  const number = await raise(aro!, { ...transfer, title: 'Fifth' });
  expect(await move(bia!, number, 'gear', 'leaveOut')).toBe(422);
  expect(await move(bia!, number, 'gear', 'leaveOut', { reason: 'She has her own.' })).toBe(200);
  expect(await stepOf(number, 'gear')).toMatchObject({ state: 'skipped', reason: 'She has her own.' });
  await say(olav!, number, 'approve');
  await say(ana!, number, 'approve');
  await until(
    () => statesOf(number),
    ({ contract }) => contract === 'active',
  );
  expect(await move(bia!, number, 'centre', 'finish')).toBe(200);
  expect(await move(bia!, number, 'centre', 'redo')).toBe(200);
  expect(await statesOf(number)).toMatchObject({ centre: 'active' });
  const stale = { name: 'finish', version: 1 };
  expect((await bia!.call('POST', `/tickets/${number}/steps/centre/moves`, stale)).status).toBe(409);
});

test('when a plan slips past its promise its holder is told at once, with what decides it and what would bring it back', async () => {
  const number = await raise(aro!, { ...transfer, title: 'Sixth' });
  await say(olav!, number, 'approve');
  await say(iben!, number, 'approve');
  await until(
    () => statesOf(number),
    ({ gear }) => gear === 'active',
  );
  await move(sofia!, number, 'contract', 'finish');
  await move(clara!, number, 'centre', 'finish');
  const { promisedAt } = await planOf(number);
  const days = 9 * 24 * 60 * MINUTE;
  app.clock.pass(days);
  const [slipped] = await until(
    () => app.listo.db.tables.journal.find({ ticketNumber: number, type: 'slipped' }),
    (entries) => entries.length > 0,
  );
  expect(slipped!.data).toMatchObject({ promisedAt });
  expect(JSON.stringify(factsOfEntry(slipped!).driving)).toContain('Safety gear');
  const plan = await planOf(number);
  expect(plan.forecastAt).toBeGreaterThan(promisedAt);
  expect(stepsOf(plan).find(({ id }) => id === 'gear')).toMatchObject({ decides: true, slack: 0 });
  const told = await until(
    () => app.listo.db.tables.notifications.find({ ticketNumber: number, event: 'slipped' }),
    (rows) => rows.length > 0,
  );
  expect(told.map(({ personId }) => personId)).toContain('marta');
  app.clock.pass(-days);
});

test('done and reopened, a step that is done anew is done anew', async () => {
  const number = await raise(aro!, {
    ...transfer,
    title: 'Eighth',
    answers: { ...transfer.answers, gear: false },
  });
  await say(olav!, number, 'approve');
  await say(iben!, number, 'approve');
  await until(
    () => statesOf(number),
    ({ contract }) => contract === 'active',
  );
  for (const id of ['contract', 'centre']) await move(bia!, number, id, 'finish');
  await until(
    () => statesOf(number),
    ({ welcome }) => welcome === 'active',
  );
  for (const id of ['welcome', 'how']) await move(bia!, number, id, 'finish');
  const { state, version } = await read(number);
  expect(state).toBe('done');
  const reopen = { name: 'reopen', by: 'agent', version, input: { stillBroken: 'Nobody was there.' } };
  expect((await bia!.call('POST', `/tickets/${number}/moves`, reopen)).status).toBe(200);
  expect(await move(bia!, number, 'welcome', 'redo')).toBe(200);
  expect(await statesOf(number)).toMatchObject({ welcome: 'active' });
});

test('a calendar that changes moves the forecast of every plan on it, and what was promised stays', async () => {
  const number = await raise(aro!, { ...transfer, title: 'Seventh' });
  const forecastOf = async () => (await app.listo.db.tables.plans.findOne({ ticketNumber: number }))!;
  const before = await forecastOf();
  const helder = await app.as('helder');
  const { body } = await helder.call('GET', '/calendars');
  const { spec, version } = (body as { id: string; spec: CalendarSpec; version: number }[]).find(
    ({ id }) => id === 'office',
  )!;
  const exceptions = [...spec.exceptions, { date: '2026-11-26', name: 'Storm', windows: [] }];
  const change = { version, spec: { ...spec, exceptions } };
  expect((await helder.call('PUT', '/calendars/office', change)).status).toBe(200);
  // The stores are closed for a day more, and the gear is what the date hangs on.
  const moved = await until(forecastOf, ({ forecastAt }) => forecastAt > before.forecastAt);
  expect(moved.promisedAt).toBe(before.promisedAt);
  expect(moved.slippedTo).toBe(moved.forecastAt);
  expect((await helder.call('PUT', '/calendars/office', { version: version + 1, spec })).status).toBe(200);
  await until(forecastOf, ({ slippedTo }) => slippedTo === null);
});

test('what a step sets, the next ones are judged by', async () => {
  const name = { en: 'Step', pt: 'Passo' };
  const isSet = { field: 'checked', op: 'is', value: true } as const;
  const plan: ServicePlan = {
    legs: [{ id: 'one', name }],
    steps: [
      {
        id: 'set',
        leg: 'one',
        name,
        kind: 'automatic',
        action: { do: 'setField', field: 'checked', value: true },
      },
      { id: 'then', leg: 'one', name, kind: 'task', teamId: 'stores', after: ['set'], when: isSet },
    ],
  };
  await app.listo.db.run('UPDATE services SET plan = :plan, version = version + 1 WHERE id = :id', {
    plan: JSON.stringify(plan),
    id: 'roster',
  });
  const roster = {
    serviceId: 'roster',
    title: 'Shift',
    answers: { day: '2026-12-01', what: 'Wrong', urgency: 'canWait' },
  };
  let number = 0;
  await until(
    async () => planOf((number = await raise(ana!, roster))).catch(() => null),
    (found) => found !== null,
  );
  expect(await statesOf(number)).toEqual({ set: 'done', then: 'active' });
});

describe('an outside address', () => {
  let outside: Server;
  let asked: { body: Record<string, string>; key: string }[] = [];
  let answerWith = 202;
  beforeAll(async () => {
    outside = createServer((request, response) => {
      let text = '';
      request.on('data', (part: Buffer) => (text += part.toString()));
      request.on('end', () => {
        asked.push({ body: JSON.parse(text), key: String(request.headers['idempotency-key']) });
        response.writeHead(answerWith).end();
      });
    });
    await new Promise<void>((resolve) => outside.listen(0, '127.0.0.1', resolve));
    const name = { en: 'Order', pt: 'Pedido' };
    const address = `http://127.0.0.1:${(outside.address() as AddressInfo).port}/`;
    app.listo.config.LISTO_OUTGOING_HOSTS = new URL(address).origin;
    const plan: ServicePlan = {
      legs: [{ id: 'one', name }],
      steps: [
        { id: 'order', leg: 'one', name, kind: 'automatic', action: { do: 'send', address }, effort: 'PT1H' },
      ],
    };
    await app.listo.db.tables.services.update({ id: 'safety-gear' }, { plan });
    // The catalogue is looked at anew when a version changes.
    await app.listo.db.run("UPDATE services SET version = version + 1 WHERE id = 'safety-gear'");
  });
  beforeEach(() => {
    asked = [];
    answerWith = 202;
  });
  afterAll(() => outside.close());

  const order = {
    serviceId: 'safety-gear',
    title: 'Boots',
    answers: { sort: 'boots', size: '41', site: 'Port Alder' },
  };
  const raiseOrder = async (): Promise<number> => {
    let number = 0;
    await until(
      async () => planOf((number = await raise(ana!, order))).catch(() => null),
      (plan) => plan !== null,
    );
    return number;
  };

  test('is sent the ticket with its answers, and the step runs until it answers, once', async () => {
    const number = await raiseOrder();
    const [sent] = await until(
      () => Promise.resolve(asked),
      (all) => all.length > 0,
    );
    expect(sent!.body).toMatchObject({ ticket: { number, answers: order.answers }, step: 'order' });
    await until(
      () => stepOf(number, 'order'),
      ({ sending }) => sending?.sentAt != null,
    );
    expect((await read(number)).state).toBe('received');
    const answer = (words: string) =>
      fetch(sent!.body.answerTo!, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ fields: { orderNumber: 'B-7' }, words }),
      });
    expect((await answer('Sent on Friday.')).status).toBe(200);
    expect((await answer('Sent again.')).status).toBe(200);
    expect((await read(number)).state).toBe('done');
    const entries = await app.listo.db.tables.journal.find({ ticketNumber: number, type: 'stepDone' });
    expect(entries.map((entry) => factsOfEntry(entry).words)).toEqual(['Sent on Friday.']);
    const row = await app.listo.db.tables.tickets.findOne({ number });
    expect(row!.answers).toMatchObject({ orderNumber: 'B-7' });
  });

  test('that is down is asked again later with the same key, at last given up, and can be tried anew', async () => {
    answerWith = 503;
    const number = await raiseOrder();
    const keysOf = () =>
      new Set(
        asked
          .filter(({ body }) => (body as never as { ticket: { number: number } }).ticket.number === number)
          .map(({ key }) => key),
      );
    for (let tries = 1; tries <= 6; tries++) {
      await until(
        () => stepOf(number, 'order'),
        ({ sending }) => sending?.tries === tries && sending.error === '503',
      );
      app.clock.pass(2 ** tries * MINUTE);
    }
    await until(
      () => stepOf(number, 'order'),
      ({ state }) => state === 'failed',
    );
    expect(keysOf().size).toBe(1);
    answerWith = 202;
    expect(await move(clara!, number, 'order', 'redo')).toBe(403);
    expect(await move(jonas!, number, 'order', 'redo')).toBe(200);
    await until(
      () => stepOf(number, 'order'),
      ({ sending }) => sending?.sentAt != null,
    );
    expect(keysOf().size).toBe(2);
  });

  test('an answer to a step that nobody sent is refused', async () => {
    const response = await fetch(`${app.url}/api/v1/step-answers/${'x'.repeat(32)}`, { method: 'POST' });
    expect(response.status).toBe(404);
  });
});
