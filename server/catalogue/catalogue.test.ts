import type { Ask } from '../../contract/approvals';
import type { ServiceCard } from '../../contract/catalogue';
import type { EditedService } from '../../contract/services';
import type { Ticket, TicketRow } from '../../contract/tickets';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { kindRow, thingRow } from '../testing/things';

/** A service from its first draft to its second version, made by the team that answers for it. */
let app: TestListo;
let [hanna, rui, tomas, lena, helder, ana, helge, clara]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('catalogue', { startsAt: Date.parse('2026-11-23T09:00:00Z') });
});
// Weeks pass between some of these tests, longer than a session lasts.
beforeEach(async () => {
  const names = ['hanna', 'rui', 'tomas', 'lena', 'helder', 'ana', 'helge', 'clara'];
  [hanna, rui, tomas, lena, helder, ana, helge, clara] = await Promise.all(names.map(app.as));
});
afterAll(() => app.end());

const DAY = 86_400_000;
type Answer = { status: number; body: never };
const title = { en: 'Chart table lamp', pt: 'Candeeiro da mesa de cartas' };
const services = (by: Person, query = ''): Promise<Answer> => by.call('GET', `/services${query}`);
const idsOf = async (by: Person, query = ''): Promise<string[]> =>
  ((await services(by, query)).body as ServiceCard[]).map(({ id }) => id);
const edited = async (id: string, by = hanna!): Promise<EditedService> =>
  (await by.call('GET', `/workshop/services/${id}`)).body as EditedService;
const save = async (id: string, change: object, by = hanna!): Promise<Answer> => {
  const { definition, draftVersion } = await edited(id, by);
  const body = { draftVersion, definition: { ...definition, ...change } };
  return by.call('PUT', `/workshop/services/${id}/draft`, body);
};
const publish = async (id: string, by = hanna!): Promise<Answer> =>
  by.call('POST', `/workshop/services/${id}/versions`, { draftVersion: (await edited(id, by)).draftVersion });
const send = (by: Person, serviceId: string, answers: object, more: object = {}): Promise<Answer> =>
  by.call('POST', '/tickets', { serviceId, title: 'A lamp', answers, ...more });
const read = async (number: number, by: Person): Promise<Ticket> =>
  (await by.call('GET', `/tickets/${number}`)).body as Ticket;
const asksOf = async (by: Person, number: number): Promise<Ask[]> =>
  ((await by.call('GET', '/my/asks')).body as Ask[]).filter((ask) => ask.number === number);
const agree = async (by: Person, number: number): Promise<void> => {
  const [ask] = await asksOf(by, number);
  expect((await by.call('POST', `/asks/${ask!.id}/decision`, { decision: 'approve' })).status).toBe(200);
};
const askedOf = (by: Person, number: number): Promise<Ask[]> =>
  until(
    () => asksOf(by, number),
    (asks) => asks.length > 0,
  );

test('a team administrator begins a service from a ready set, is told what is missing, and publishes it', async () => {
  const begun = await hanna!.call('POST', '/workshop/services', {
    title,
    teamId: 'onboard',
    from: { kit: 'order' },
  });
  const { id } = begun.body as { id: string };
  expect(id).toBe('chart-table-lamp');
  expect((await edited(id)).problems).toEqual([{ part: 'about', code: 'noDescription' }]);
  expect(await publish(id)).toMatchObject({
    status: 422,
    body: { fields: [{ field: 'about', code: 'noDescription' }] },
  });
  expect(await idsOf(tomas!)).not.toContain(id);

  const description = { en: 'Red light, for the night.', pt: 'Luz vermelha, para a noite.' };
  expect((await save(id, { description, audience: [{ by: 'onVessel' }] })).body).toMatchObject({
    problems: [],
  });
  expect(await publish(id)).toMatchObject({ status: 200, body: { version: 1 } });

  // For those on board; by its address others read that it is not for them, and cannot send it.
  expect(await idsOf(lena!)).toContain(id);
  expect(await idsOf(tomas!)).not.toContain(id);
  expect((await tomas!.call('GET', `/services/${id}`)).body).toMatchObject({ isForYou: false });
  const answers = { many: 2, why: 'The old one flickers.' };
  expect((await send(tomas!, id, answers)).body).toMatchObject({ type: '/problems/notForThem' });
  expect((await send(lena!, id, answers)).status).toBe(200);
});

test('open requests keep the version under which they were sent', async () => {
  const id = 'chart-table-lamp';
  const { number } = (await send(lena!, id, { many: 1, why: 'Night watch.' })).body as { number: number };
  const label = { en: 'Which colour?', pt: 'De que cor?' };
  const fields = [{ name: 'colour', kind: 'text', label, needed: true }];
  await save(id, { form: { fields }, approvals: [] });
  expect(await publish(id)).toMatchObject({ status: 200, body: { version: 2 } });
  const before = await read(number, lena!);
  expect(before.answers.map(({ field }) => field.name)).toEqual(['many', 'why']);
  expect((await send(lena!, id, { many: 1 })).body).toMatchObject({
    fields: [{ field: 'answers.colour', code: 'missing' }],
  });
  const { body } = await send(lena!, id, { colour: 'Red' });
  expect((await read((body as { number: number }).number, lena!)).answers).toMatchObject([{ value: 'Red' }]);
  // Which versions there were, what each changed and who published it, and what still keeps it.
  const versions = (await hanna!.call('GET', `/workshop/services/${id}/versions`)).body as {
    definition: { form: { fields: { name: string }[] } };
  }[];
  expect(versions).toMatchObject([
    { version: 2, by: 'Hanna Vik', changed: ['form', 'approvals'], openRequests: 1 },
    { version: 1, changed: [], openRequests: 2 },
  ]);
  expect(versions[1]!.definition.form.fields.map(({ name }) => name)).toEqual(['many', 'why', 'until']);
  expect((await tomas!.call('GET', `/workshop/services/${id}/versions`)).status).toBe(403);
  // The step that stood in the old version still has to be agreed.
  expect(before).toMatchObject({ state: 'held', heldFor: 'approval' });
});

test('only those who answer for the team may write, and a draft that changed meanwhile is not overwritten', async () => {
  const id = 'gate-scanner';
  expect(
    (await rui!.call('POST', '/workshop/services', { title, teamId: 'onboard', from: { kit: 'order' } }))
      .status,
  ).toBe(403);
  expect((await save(id, {}, rui!)).status).toBe(403);
  expect((await save(id, { teamId: 'people' })).status).toBe(403);
  expect((await tomas!.call('GET', '/workshop/services')).status).toBe(403);
  const { definition } = await edited(id);
  const first = await hanna!.call('PUT', `/workshop/services/${id}/draft`, { draftVersion: 0, definition });
  expect(first).toMatchObject({ status: 200, body: { draftVersion: 1 } });
  const second = await helder!.call('PUT', `/workshop/services/${id}/draft`, { draftVersion: 0, definition });
  expect(second).toMatchObject({ status: 409, body: { type: '/problems/stale' } });
  expect((await hanna!.call('DELETE', `/workshop/services/${id}/draft`)).status).toBe(200);
  expect(await edited(id)).toMatchObject({ draftVersion: 0, version: 1 });
});

test('a service that is off says why at its address, and takes nothing', async () => {
  const offWords = { en: 'Phone the yard instead.', pt: 'Ligue para o estaleiro.' };
  await hanna!.call('PUT', '/workshop/services/kiosk/state', { isOn: false, offWords });
  expect(await idsOf(tomas!)).not.toContain('kiosk');
  expect((await tomas!.call('GET', '/services/kiosk')).body).toMatchObject({ isOn: false, offWords });
  expect((await send(tomas!, 'kiosk', {})).body).toMatchObject({ type: '/problems/serviceOff' });
  await hanna!.call('PUT', '/workshop/services/kiosk/state', { isOn: true });
  expect(await idsOf(tomas!)).toContain('kiosk');
});

test('services stand in the order in which they were put', async () => {
  const onboard = ['gate-scanner', 'gate-broken'];
  expect((await hanna!.call('PUT', '/workshop/service-order', { ids: onboard })).status).toBe(200);
  expect((await idsOf(tomas!)).filter((id) => onboard.includes(id))).toEqual(onboard);
  expect((await hanna!.call('PUT', '/workshop/service-order', { ids: ['printing', 'kiosk'] })).status).toBe(
    403,
  );
});

test('who works on services sees those of everyone; who asks, their own', async () => {
  const marta = await app.as('marta');
  // A hand radio is for people on board, at terminals and dockyards.
  expect(await idsOf(marta)).not.toContain('radio');
  expect(await idsOf(marta, '?of=everyone')).toContain('radio');
  expect((await tomas!.call('GET', '/services?of=everyone')).status).toBe(403);
  // What a caller says is found among what is for the caller.
  const found = async (whom: string): Promise<string[]> => {
    const { body } = await marta.call('GET', `/ask/search?q=hand%20radio${whom}`);
    return (body as { services: ServiceCard[] }).services.map(({ id }) => id);
  };
  expect(await found('')).not.toContain('radio');
  expect(await found('&for=lena')).toContain('radio');
});

test('people and things that were chosen are called by their names here', async () => {
  const laptop = (id: string, holderId: string, siteId: string) =>
    thingRow({ id: id.toLowerCase(), name: `Laptop ${id}`, tag: id, holderId, siteId });
  await app.listo.db.tables.thingKinds.insert(kindRow({ id: 'laptop' }));
  await app.listo.db.tables.things.insertAll([
    laptop('L-1', 'tomas', 'alder'),
    laptop('L-2', 'ines', 'alder'),
    laptop('L-3', 'yves', 'yard-1'),
    thingRow({ id: 'l-4', name: 'Laptop L-4', siteId: 'alder', state: 'retired' }),
  ]);
  const found = (await tomas!.call('GET', '/things/choices?kind=laptop&q=laptop')).body;
  expect(found).toMatchObject([
    { id: 'l-1', whose: 'own' },
    { id: 'l-2', whose: 'near' },
    { id: 'l-3', whose: 'other' },
  ]);
  const answers = { which: 'replacement', thing: { id: 'l-1', name: 'something else' }, why: 'Worn out.' };
  const { number } = (await send(tomas!, 'laptop', answers)).body as { number: number };
  const thing = (await read(number, tomas!)).answers.find(({ field }) => field.name === 'thing');
  expect(thing?.value).toEqual({ id: 'l-1', name: 'Laptop L-1' });
  expect((await send(tomas!, 'laptop', { ...answers, thing: { id: 'gone', name: '' } })).body).toMatchObject({
    fields: [{ field: 'answers.thing', code: 'notAChoice' }],
  });
});

const laptop = { which: 'new', why: 'For the new counter.' };

test('over 500 € the finance lead is asked after the manager, and only then does it go on', async () => {
  const { number } = (await send(tomas!, 'laptop', laptop)).body as { number: number };
  expect(await asksOf(clara!, number)).toEqual([]);
  await agree(ana!, number);
  await askedOf(clara!, number);
  expect(await read(number, tomas!)).toMatchObject({ state: 'held', heldFor: 'approval' });
  // It stands in her worklists too, beside tickets.
  const { rows } = (await clara!.call('GET', '/worklists/nextUp')).body as { rows: TicketRow[] };
  expect(rows.find((row) => row.number === number)?.step).toMatchObject({ kind: 'approval' });
  await agree(clara!, number);
  await until(
    () => read(number, tomas!),
    ({ state }) => state === 'received',
  );
});

test('who agreed to an earlier step and is asked again counts at once, where the step carries them over', async () => {
  const step = { refs: [{ person: 'ana' }], needs: { kind: 'any' }, declineBy: 'any' };
  const name = (en: string) => ({ en, pt: en });
  const approvals = [
    { ...step, name: name('First') },
    { ...step, name: name('Never'), when: { field: 'cost', op: 'lt', value: 0 } },
    { ...step, name: name('Second'), carry: true },
  ];
  await save('laptop', { approvals }, helder!);
  expect((await publish('laptop', helder!)).status).toBe(200);
  const { number } = (await send(tomas!, 'laptop', laptop)).body as { number: number };
  await agree(ana!, number);
  const ticket = await until(
    () => read(number, tomas!),
    ({ state }) => state === 'received',
  );
  expect(ticket.approvals.map((approval) => [approval.name.en, approval.outcome])).toEqual([
    ['First', 'approved'],
    ['Second', 'approved'],
  ]);
});

test('who agreed is asked anew when what they agreed to changes, and told what has changed', async () => {
  const answers = { site: 'Port Alder', sort: 'hand', count: 1 };
  const { number } = (await send(tomas!, 'gate-scanner', answers)).body as { number: number };
  await agree(ana!, number);
  const { version } = await until(
    () => read(number, tomas!),
    ({ state }) => state === 'received',
  );
  const change = (by: Person, more: object) =>
    by.call('PUT', `/tickets/${number}/answers`, { version, answers: { ...answers, ...more } });
  expect((await change(lena!, { count: 9 })).status).toBe(404);
  expect(await change(tomas!, { count: 'many' })).toMatchObject({
    status: 422,
    body: { fields: [{ field: 'answers.count' }] },
  });
  expect((await change(tomas!, { count: 4 })).status).toBe(200);
  expect(await read(number, tomas!)).toMatchObject({ state: 'held', heldFor: 'approval' });
  expect(await asksOf(ana!, number)).toMatchObject([{ changed: [{ en: 'How many?' }] }]);
  await agree(ana!, number);
  await until(
    () => read(number, tomas!),
    ({ state }) => state === 'received',
  );
});

test('silence passes an ask up to the next manager', async () => {
  const { number } = (await send(tomas!, 'gate-scanner', { site: 'Port Alder', sort: 'hand', count: 1 }))
    .body as { number: number };
  expect(await asksOf(ana!, number)).toHaveLength(1);
  app.clock.pass(4 * DAY);
  await askedOf(helge!, number);
  expect(await asksOf(ana!, number)).toEqual([]);
  await agree(helge!, number);
  await until(
    () => read(number, tomas!),
    ({ state }) => state === 'received',
  );
});

test('a question back stands on the thread, stops the silence, and its answer brings the ask back', async () => {
  const { number } = (await send(tomas!, 'gate-scanner', { site: 'Port Alder', sort: 'hand', count: 1 }))
    .body as { number: number };
  const [ask] = await asksOf(ana!, number);
  const asked = await ana!.call('POST', `/asks/${ask!.id}/question`, { words: 'Which gate is it for?' });
  expect(asked.status).toBe(200);
  app.clock.pass(4 * DAY);
  const told = await until(
    () =>
      app.listo.db.tables.notifications.find({
        ticketNumber: number,
        personId: 'tomas',
        event: 'questioned',
      }),
    (rows) => rows.length > 0,
  );
  expect(told).toHaveLength(1);
  await until(
    () => app.listo.db.tables.timers.find({ ticketNumber: number, kind: 'askSilent' }),
    (timers) => timers.length === 0,
  );
  expect(await asksOf(ana!, number)).toMatchObject([{ questionAt: expect.any(Number) as number }]);
  await tomas!.call('POST', `/tickets/${number}/messages`, { text: 'Gate 3.', readBy: 'requester' });
  expect(await asksOf(ana!, number)).toMatchObject([{ questionAt: null }]);
  app.clock.pass(4 * DAY);
  await askedOf(helge!, number);
});

test('where the next one up has said yes already, their yes is enough and the place goes', async () => {
  const step = { refs: [{ person: 'ana' }, { person: 'helge' }], needs: { kind: 'all' }, declineBy: 'any' };
  const name = { en: 'Both', pt: 'Ambos' };
  await save(
    'radio',
    {
      approvals: [{ ...step, name, silence: { after: 'PT1H', then: 'passUp' } }],
      form: { fields: [] },
      audience: [],
    },
    helder!,
  );
  expect((await publish('radio', helder!)).status).toBe(200);
  const { number } = (await send(tomas!, 'radio', {})).body as { number: number };
  await agree(helge!, number);
  app.clock.pass(3 * DAY);
  await until(
    () => read(number, tomas!),
    ({ state }) => state === 'received',
  );
});

test('a file that is needed is asked for, and is kept beside the answers', async () => {
  const fields = [{ name: 'receipt', kind: 'files', label: { en: 'Receipt', pt: 'Recibo' }, needed: true }];
  await save('supplier', { approvals: [], audience: [], form: { fields } }, helder!);
  expect((await publish('supplier', helder!)).status).toBe(200);
  expect((await send(tomas!, 'supplier', {})).body).toMatchObject({
    fields: [{ field: 'answers.receipt', code: 'missing' }],
  });
  const form = new FormData();
  form.append('file', new Blob(['12 euros']), 'receipt.txt');
  const { id } = (await tomas!.call('POST', '/files', form)).body as { id: string };
  const { number } = (await send(tomas!, 'supplier', {}, { fileIds: [id] })).body as { number: number };
  expect(await read(number, tomas!)).toMatchObject({ answers: [], files: [{ name: 'receipt.txt' }] });
});

test('silence reminds as often as was set, and may stand for a yes', async () => {
  const step = { refs: [{ person: 'ana' }], needs: { kind: 'any' }, declineBy: 'any' };
  const name = { en: 'A word', pt: 'Uma palavra' };
  const approvals = [{ ...step, name, silence: { after: 'PT1H', then: 'remind', most: 2 } }];
  expect((await save('expenses', { approvals, form: { fields: [] } }, helder!)).status).toBe(200);
  expect((await publish('expenses', helder!)).status).toBe(200);
  app.clock.set(Date.parse('2026-12-07T09:30:00Z'));
  [tomas, helder] = await Promise.all(['tomas', 'helder'].map(app.as));
  const { number } = (await send(tomas!, 'expenses', {})).body as { number: number };
  const reminded = async (): Promise<number> =>
    (await app.listo.db.tables.journal.find({ ticketNumber: number, type: 'askReminded' })).length;
  for (const times of [1, 2]) {
    app.clock.pass(DAY / 24 + 60_000);
    await until(reminded, (count) => count === times);
  }
  expect(await app.listo.db.tables.timers.find({ ticketNumber: number, kind: 'askSilent' })).toEqual([]);

  await save(
    'expenses',
    { approvals: [{ ...step, name, silence: { after: 'PT1H', then: 'approve' } }] },
    helder!,
  );
  expect(await publish('expenses', helder!)).toMatchObject({ status: 200, body: { version: 3 } });
  const { number: second } = (await send(tomas!, 'expenses', {})).body as { number: number };
  app.clock.pass(DAY / 8);
  const ticket = await until(
    () => read(second, tomas!),
    ({ state }) => state === 'received',
  );
  expect(ticket.approvals[0]).toMatchObject({ outcome: 'approved', asks: [{ decision: 'approve' }] });
});

test('owners agree: who answers for the service, for the cost centre, and whose the thing is', async () => {
  const { db } = app.listo;
  const agreed = { needs: { kind: 'all' }, declineBy: 'any' };
  const name = { en: 'Its owners agree', pt: 'Os donos concordam' };
  const device = {
    ...{ name: 'device', kind: 'asset', needed: true },
    label: { en: 'Which device?', pt: 'Que aparelho?' },
  };
  const refs = (['service', 'costCentre', 'asset'] as const).map((ownerOf) => ({ ownerOf }));
  const definition = { approvals: [{ ...agreed, name, refs }], form: { fields: [device] } };
  expect((await save('report', { ...definition, ownerId: 'clara' }, helder!)).status).toBe(200);
  expect((await publish('report', helder!)).status).toBe(200);
  await db.tables.things.insert(thingRow({ id: 'lens-1', kindId: 'lens', name: 'Lens 1', ownerId: 'lena' }));
  const asked = async (): Promise<string[]> => {
    const { number } = (await send(tomas!, 'report', { device: { id: 'lens-1', name: '' } })).body as {
      number: number;
    };
    const rows = await db.tables.asks.find({ ticketNumber: number });
    return rows.map(({ voterId, reason }) => `${reason}: ${voterId}`).sort();
  };
  // Of those who work here he heads his cost centre himself, and nobody decides their own: it goes one up.
  expect(await asked()).toEqual(['oneUp: ana', 'owner: clara', 'owner: lena']);
  const { costCentre } = (await db.tables.people.findOne({ id: 'tomas' }))!;
  await db.tables.people.update({ id: 'rui' }, { costCentre, managerId: null });
  await db.tables.people.update({ id: 'tomas' }, { managerId: 'rui' });
  expect(await asked()).toEqual(['owner: clara', 'owner: lena', 'owner: rui']);
  // Nobody said: who leads its team answers for it.
  await save('report', { ...definition, ownerId: null }, helder!);
  await publish('report', helder!);
  const [lead] = await db.tables.members.find({ teamId: 'apps', role: 'lead' }, { order: ['personId'] });
  expect(await asked()).toContain(`owner: ${lead!.personId}`);
});
