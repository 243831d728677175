import type { Hangs, OwnThing, Thing, ThingCard, ThingMap, ThingOnTicket } from '../../contract/estate';
import { standings } from '../../core/estate';
import { startTestListo, type Person, type TestListo } from '../testing/harness';
import { kindRow, thingRow } from '../testing/things';
import { readNetwork } from './network';

/** Things: made, changed, handed over, needed by each other, on tickets, and in the hands of people. */
let app: TestListo;
let [helder, rui, bia, tomas, ines]: Person[] = [];
const NOW = Date.parse('2026-11-25T10:00:00Z');
const DAY = 86_400_000;

beforeAll(async () => {
  app = await startTestListo('estate');
  [helder, rui, bia, tomas, ines] = await Promise.all(['helder', 'rui', 'bia', 'tomas', 'ines'].map(app.as));
  const { thingKinds } = app.listo.db.tables;
  const number = {
    name: 'storage',
    kind: 'number',
    needed: true,
    label: { en: 'Storage', pt: 'Espaço' },
    least: 1,
  };
  await thingKinds.insertAll([
    kindRow({
      id: 'laptop',
      form: { fields: [number as never] },
      keptBy: ['desk'],
      serviceId: 'other',
      months: 48,
    }),
    kindRow({ id: 'net', seenBy: 'desk', position: 1 }),
    kindRow({ id: 'vault', seenBy: 'keepers', keptBy: ['people'], position: 2 }),
  ]);
});
afterAll(() => app.end());

const BODY = {
  ...{ name: 'Laptop L-1', tag: 'L-1', serial: 'SN 1', model: 'Tern 14', kindId: 'laptop', ownerId: null },
  ...{ siteId: 'head', place: '', vessel: '', teamId: 'desk', cost: 120_000, boughtOn: '2026-01-25' },
  ...{
    warrantyUntil: '2029-01-24',
    contract: '',
    isWatched: false,
    dependable: null,
    fields: { storage: 256 },
  },
};
const make = async (by: Person, given: object = {}, state = 'inStore') =>
  by.call('POST', '/things', { ...BODY, ...given, state });
const made = async (given: object = {}, state = 'inStore'): Promise<string> => {
  const { body, status } = await make(helder!, given, state);
  if (status !== 200) throw new Error(JSON.stringify(body));
  return (body as { id: string }).id;
};
const read = async (id: string, by = helder!): Promise<Thing> => (await by.call('GET', `/things/${id}`)).body;
const faults = (answer: { body: { fields: { field: string; code: string }[] } }): string =>
  answer.body.fields.map(({ field, code }) => `${field} ${code}`).join();
const act = async (id: string, what: object, by = helder!) =>
  by.call('POST', `/things/${id}/acts`, { version: (await read(id)).version, ...what });

test('a thing is made with what its kind asks for, and says what it is still worth', async () => {
  const id = await made();
  expect(await read(id)).toMatchObject({
    ...{ name: 'Laptop L-1', state: 'inStore', holder: null, mayKeep: true, version: 1 },
    // 120,000 cents over 48 months, ten of which are over.
    worth: 95_000,
    answers: [{ field: { name: 'storage' }, value: 256 }],
    history: [{ type: 'thingMade', byName: expect.any(String) as string }],
  });
});

test.each([
  [{ name: ' ', tag: 'A-1' }, 'name missing'],
  [{ tag: 'l - 1' }, 'tag taken'],
  [{ tag: 'A-2', fields: {} }, 'fields.storage missing'],
  [{ tag: 'A-3', fields: { storage: 0 } }, 'fields.storage tooSmall'],
  [{ tag: 'A-4', siteId: 'nowhere', teamId: 'nobody' }, 'siteId notAChoice,teamId notAChoice'],
  [{ tag: 'A-5', kindId: 'none' }, 'kindId notAChoice'],
  [{ tag: 'A-6', warrantyUntil: '2020-01-01' }, 'warrantyUntil endsTooSoon'],
])('%j is refused: %s', async (given, wanted) => {
  const refused = await make(helder!, given);
  expect(refused.status).toBe(422);
  expect(faults(refused as never)).toBe(wanted);
});

test('who keeps a kind changes its things; others read them, employees do not, and what is not theirs to see is not there', async () => {
  const id = await made({ tag: 'R-1' });
  const secret = await made({ tag: 'R-2', kindId: 'vault', fields: {} });
  expect((await make(bia!, { tag: 'R-3' })).status).toBe(200);
  // Rui is of the network, who do not keep laptops.
  expect((await make(rui!, { tag: 'R-4' })).status).toBe(403);
  expect(await read(id, rui!)).toMatchObject({ mayKeep: false, acts: [] });
  expect((await act(id, { act: 'retire' }, rui!)).status).toBe(403);
  expect((await rui!.call('GET', `/things/${secret}`)).status).toBe(404);
  expect((await rui!.call('GET', '/things/by-mark?mark=R-2')).body).toEqual([]);
  for (const path of ['/things', `/things/${id}`, '/things/kinds', '/things/figures'])
    expect((await tomas!.call('GET', path)).status).toBe(403);
});

test('a change is kept with what was so before; a stale one is refused with the differences', async () => {
  const id = await made({ tag: 'C-1' });
  const change = (version: number, given: object) =>
    helder!.call('PUT', `/things/${id}`, { ...BODY, tag: 'C-1', ...given, version });
  expect((await change(1, { place: 'Room 2', ownerId: 'ana' })).body).toEqual({ version: 2 });
  const stale = await change(1, { place: 'Room 3' });
  expect(stale.status).toBe(409);
  expect((stale.body as { differences: object[] }).differences).toMatchObject([
    { field: 'ownerId' },
    { field: 'place', theirs: 'Room 2', yours: 'Room 3' },
  ]);
  const [last] = (await read(id)).history;
  expect(last).toMatchObject({
    type: 'thingChanged',
    changes: [
      { field: 'ownerId', from: null, to: expect.stringContaining(' ') as string },
      { field: 'place', from: '', to: 'Room 2' },
    ],
  });
});

test('it is handed over, said to be there, lost, found by its history, and taken back', async () => {
  const id = await made({ tag: 'H-1' });
  expect((await act(id, { act: 'handOver', holderId: 'tomas' })).status).toBe(200);
  const mine = async (): Promise<OwnThing> =>
    ((await tomas!.call('GET', '/my/things')).body as OwnThing[]).find((thing) => thing.id === id)!;
  expect(await mine()).toMatchObject({ isAsked: true, claim: null, state: 'inUse' });
  const say = (what: string, words = '', by = tomas!) =>
    by.call('POST', `/my/things/${id}`, { say: what, words });
  expect((await say('have', '', ines!)).status).toBe(404);
  expect((await say('have')).body).toEqual({ number: null });
  expect(await mine()).toMatchObject({ isAsked: false });
  expect((await say('returned')).status).toBe(200);
  const claimed = (await helder!.call('GET', '/things?only=claimed')).body as { rows: ThingCard[] };
  expect(claimed.rows).toMatchObject([{ id, claim: 'returned', holder: { id: 'tomas' } }]);
  // Whoever takes it back has dealt with it.
  expect((await act(id, { act: 'takeBack' })).status).toBe(200);
  expect(await read(id)).toMatchObject({ state: 'inStore', holder: null, claim: null });
  expect(await mine()).toBeUndefined();
  expect((await read(id)).history.map(({ type, act: what, claim }) => what ?? claim ?? type)).toEqual([
    ...['takeBack', 'returned', 'thingSaid', 'handOver', 'thingMade'],
  ]);
});

test('what cannot be done is refused with what is missing', async () => {
  const id = await made({ tag: 'H-2' });
  const say = async (what: object): Promise<string> => faults((await act(id, what)) as never);
  expect(await say({ act: 'handOver' })).toBe('holderId missing');
  expect(await say({ act: 'handOver', holderId: 'nobody' })).toBe('holderId notAChoice');
  expect(await say({ act: 'lend', holderId: 'tomas', lentUntil: NOW - DAY })).toBe('lentUntil past');
  expect(await say({ act: 'find' })).toBe('act notNow');
  const stale = await helder!.call('POST', `/things/${id}/acts`, { version: 9, act: 'retire' });
  expect(stale.status).toBe(409);
});

test('what is broken or lost becomes a ticket about it, in one step', async () => {
  const id = await made({ tag: 'B-1', name: 'Laptop B-1' });
  await act(id, { act: 'handOver', holderId: 'tomas' });
  const { number } = (
    await tomas!.call('POST', `/my/things/${id}`, { say: 'broken', words: 'The lid does not close' })
  ).body as { number: number };
  const things = (await bia!.call('GET', `/tickets/${number}/things`)).body as ThingOnTicket[];
  expect(things).toMatchObject([
    { id, name: 'Laptop B-1', how: 'about', ticketCount: 0, holder: { id: 'tomas' } },
  ]);
  const [own] = ((await tomas!.call('GET', '/my/things')).body as OwnThing[]).filter(
    (thing) => thing.id === id,
  );
  expect(own).toMatchObject({
    claim: null,
    openTickets: [{ number, title: 'Laptop B-1: The lid does not close' }],
  });
  const lost = await tomas!.call('POST', `/my/things/${id}`, { say: 'lost', words: '' });
  expect(lost.status).toBe(200);
  expect(await read(id)).toMatchObject({ claim: 'lost', openTickets: 2, ticketCount: 2 });
  // The tickets of a thing are for whoever may read them; its requester reads nothing of the team's side.
  expect((await tomas!.call('GET', `/tickets/${number}/things`)).status).toBe(403);
});

test('a ticket is tied to things by hand and by its form; what the form asked for is changed there', async () => {
  const id = await made({ tag: 'T-1', name: 'Laptop T-1', kindId: 'laptop' });
  const answers = { which: 'replacement', thing: { id, name: 'Laptop T-1' }, why: 'Worn out.' };
  const sent = await tomas!.call('POST', '/tickets', {
    ...{ serviceId: 'laptop', title: 'A laptop', answers, fileIds: [], alsoToldIds: [], via: 'portal' },
  });
  const { number } = sent.body as { number: number };
  const things = async (): Promise<string[]> =>
    ((await bia!.call('GET', `/tickets/${number}/things`)).body as ThingOnTicket[]).map(
      (thing) => `${thing.name} ${thing.how} ${String(thing.isAnswer)}`,
    );
  expect(await things()).toEqual(['Laptop T-1 about true']);
  expect(faults((await bia!.call('DELETE', `/tickets/${number}/things/${id}`)) as never)).toBe(
    'thingId isAnswer',
  );
  const net = await made({ tag: '', kindId: 'net', name: 'Line 1', fields: {} });
  const tie = (how: string) => bia!.call('POST', `/tickets/${number}/things`, { thingId: net, how });
  expect((await tie('about')).status).toBe(200);
  expect((await tie('cause')).status).toBe(200);
  expect(await things()).toEqual(['Laptop T-1 about true', 'Line 1 cause false']);
  expect((await bia!.call('DELETE', `/tickets/${number}/things/${net}`)).status).toBe(200);
  expect(await things()).toHaveLength(1);
  const { entries } = (await bia!.call('GET', `/tickets/${number}`)).body as { entries: { type: string }[] };
  expect(entries.map(({ type }) => type).filter((type) => type.startsWith('thing'))).toEqual([
    ...['thingTied', 'thingTied', 'thingUntied'],
  ]);
  const hidden = await made({ tag: 'T-9', kindId: 'vault', fields: {} });
  const refused = await bia!.call('POST', `/tickets/${number}/things`, { thingId: hidden, how: 'about' });
  expect(faults(refused as never)).toBe('thingId notAChoice');
});

describe('what hangs on what', () => {
  let ids: Record<string, string> = {};
  const need = async (name: string, ...needs: [number, ...string[]][]) =>
    helder!.call('PUT', `/things/${ids[name]}/needs`, {
      version: (await read(ids[name]!)).version,
      needs: needs.map(([atLeast, ...of]) => ({ atLeast, of: of.map((each) => ids[each] ?? each) })),
    });
  const hangs = async (name: string, by = helder!): Promise<Hangs> =>
    (await by.call('GET', `/things/${ids[name]}/hangs`)).body;
  const names = (things: { name: string }[]): string => things.map(({ name }) => name).join(' ');

  beforeAll(async () => {
    const bare = { tag: '', kindId: 'net', fields: {}, siteId: null };
    for (const name of ['shop', 'till', 'net1', 'lineA', 'lineB'])
      ids[name] = await made({
        ...bare,
        name,
        isWatched: name === 'shop',
        dependable: name.startsWith('line') ? 0.9 : null,
      });
    ids = { ...ids, safe: await made({ ...bare, name: 'safe', kindId: 'vault' }) };
    await need('shop', [1, 'till']);
    await need('till', [1, 'net1']);
    await need('net1', [1, 'lineA', 'lineB']);
    await need('safe', [1, 'net1']);
  });

  test('says what it stands on, who needs it, what falls with it and whom that concerns', async () => {
    const said = await hangs('net1');
    expect(said).toMatchObject({
      standing: 'up',
      neededByCount: 2,
      falls: { downCount: 3, weakenedCount: 0 },
    });
    expect(names(said.needs[0]!.of)).toBe('lineA lineB');
    expect(names(said.falls.watched)).toBe('shop');
    // A watched thing without a site is everyone's.
    const everyone = await app.listo.db.select<{ n: number }>(
      'SELECT COUNT(*) AS n FROM people WHERE leftAt IS NULL',
    );
    expect(said.falls.people).toBe(everyone[0]!.n);
    // Who does not see the vault hears nothing of it, not even as a number.
    expect(await hangs('net1', rui!)).toMatchObject({ neededByCount: 1, falls: { downCount: 2 } });
  });

  test('a watched one says what takes it down alone and what it can promise', async () => {
    const shop = await hangs('shop');
    expect(names(shop.alone)).toBe('till net1');
    // Two lines of which one is enough, each up nine tenths of the time: 1 − 0.1².
    expect(shop.availability).toBeCloseTo(0.99, 12);
  });

  test('what is in repair takes down what hangs on it, in every process', async () => {
    const other = await app.another();
    await readNetwork(other.listo);
    await act(ids.lineA!, { act: 'sendToRepair' });
    expect((await hangs('net1')).standing).toBe('weakened');
    await act(ids.lineB!, { act: 'sendToRepair' });
    expect(await hangs('shop')).toMatchObject({ standing: 'down', needs: [{ isMet: false }] });
    // What is down anyway does not fall once more.
    expect((await hangs('net1')).falls.downCount).toBe(0);
    const { things, needs, base, isFailed } = await readNetwork(other.listo);
    const all = [...things.keys()];
    for (const [id, { standing }] of standings(all, [...needs], all.filter(isFailed)))
      expect(base.get(id) ?? 'up').toBe(standing);
    expect(base.get(ids.shop!)).toBe('down');
    await act(ids.lineA!, { act: 'comeFromRepair' });
    await act(ids.lineB!, { act: 'comeFromRepair' });
    expect((await hangs('shop')).standing).toBe('up');
    expect((await readNetwork(other.listo)).base.get(ids.shop!)).toBeUndefined();
    await other.stop();
  });

  test('the map shows what is near, either way, and says where it goes on', async () => {
    const map = async (query: string, by = helder!): Promise<ThingMap> =>
      (await by.call('GET', `/things/${ids.net1}/map?${query}`)).body;
    expect((await map('way=below')).things.map(({ name }) => name).sort()).toEqual([
      'lineA',
      'lineB',
      'net1',
    ]);
    const near = await map('way=above&depth=1');
    expect([near.things.map(({ name }) => name).sort(), near.isCut]).toEqual([
      ['net1', 'safe', 'till'],
      true,
    ]);
    const whole = await map('way=both&depth=9');
    expect([whole.things.length, whole.isCut]).toEqual([6, false]);
    expect(whole.needs.filter(({ thing }) => thing === ids.net1)).toEqual([
      { thing: ids.net1, atLeast: 1, of: [ids.lineA, ids.lineB] },
    ]);
    expect((await map('way=both&depth=9', rui!)).things).toHaveLength(5);
  });

  test.each<[string, [number, ...string[]], string]>([
    ['itself', [1, 'net1'], 'needs needsItself'],
    ['what is not there', [1, 'nowhere'], 'needs notAChoice'],
    ['one twice', [1, 'lineA', 'lineA'], 'needs namedTwice'],
    ['more than there are', [3, 'lineA', 'lineB'], 'needs moreThanThere'],
  ])('a need of %s is refused', async (_, wanted, code) => {
    const refused = await need('net1', wanted);
    expect(refused.status).toBe(422);
    expect(faults(refused as never)).toBe(code);
    expect((await hangs('net1')).needs).toHaveLength(1);
  });

  test('what is retired cannot be needed anew; a ring is no fault', async () => {
    ids.old = await made({ tag: '', kindId: 'net', fields: {}, name: 'old' });
    await act(ids.old, { act: 'retire' });
    expect(faults((await need('net1', [1, 'old'])) as never)).toBe('needs isRetired');
    expect((await need('lineA', [1, 'shop'])).status).toBe(200);
    expect((await hangs('shop')).standing).toBe('up');
    const [last] = (await read(ids.lineA!)).history;
    expect(last).toMatchObject({
      type: 'thingNeeds',
      changes: [{ field: 'needs', from: '', to: '1: shop' }],
    });
    expect((await need('lineA')).status).toBe(200);
  });
});

test('stock is taken by scanning: what is missing, what is here and should not be, what nobody knows', async () => {
  const at = { siteId: 'yard-1', place: 'Hall A' };
  const [here, missing] = [await made({ tag: 'Y-1', ...at }), await made({ tag: 'Y-2', ...at })];
  await made({ tag: 'Y-3', siteId: 'yard-2', place: 'Hall B' });
  await made({ tag: 'Y-4', serial: 'DOUBLE', ...at, place: 'Gatehouse' });
  await made({ tag: 'Y-5', serial: 'DOUBLE', siteId: 'head' });
  const { body } = await bia!.call('POST', '/things/count', {
    ...{ ...at, marks: ['y-1', 'Y-1', 'y - 3', 'DOUBLE', 'Z-9'], isKept: true },
  });
  const ids = (cards: ThingCard[]): string[] => cards.map(({ id }) => id);
  const counted = body as Record<string, ThingCard[]>;
  expect(ids(counted.here!)).toEqual([here]);
  expect(ids(counted.missing!)).toEqual([missing]);
  expect((counted.strangers as ThingCard[]).map(({ tag }) => tag)).toEqual(['Y-3']);
  expect([counted.unknown, counted.several]).toEqual([['Z-9'], ['DOUBLE']]);
  expect((await read(here)).seenAt).toBeGreaterThan(NOW - DAY);
  expect((await read(missing)).seenAt).toBeNull();
});

test('things are listed by name a page at a time, looked for by tag, and narrowed', async () => {
  await app.listo.db.tables.things.insertAll(
    Array.from({ length: 60 }, (_, i) =>
      thingRow({ id: `many-${i}`, kindId: 'net', name: `Many ${String(i).padStart(2, '0')}`, tag: `M-${i}` }),
    ),
  );
  type Page = { rows: ThingCard[]; after: string | null; count: number };
  const list = async (query: string): Promise<Page> => (await rui!.call('GET', `/things?${query}`)).body;
  const first = await list('q=many');
  expect([first.rows.length, first.count, first.rows[0]!.name]).toEqual([50, 60, 'Many 00']);
  const rest = await list(`q=many&after=${encodeURIComponent(first.after!)}`);
  expect([rest.rows.length, rest.after, rest.rows[0]!.name]).toEqual([10, null, 'Many 50']);
  expect((await list('q=m%20-%2042')).rows.map(({ id }) => id)).toEqual(['many-42']);
  expect((await list('kindId=vault')).count).toBe(0);
  expect((await rui!.call('GET', '/things?after=x')).status).toBe(422);
});

test('figures say what things cost, what they are worth and which model breaks', async () => {
  const { thingKinds, things } = app.listo.db.tables;
  await thingKinds.insert(kindRow({ id: 'scanner', months: 10 }));
  await things.insertAll(
    Array.from({ length: 40 }, (_, i) =>
      thingRow({
        ...{
          id: `scan-${i}`,
          kindId: 'scanner',
          model: i < 20 ? 'Good' : 'Bad',
          cost: 1_000,
          boughtOn: '2026-06-25',
        },
        warrantyUntil: i === 0 ? '2027-01-10' : null,
      }),
    ),
  );
  for (let i = 20; i < 34; i++) {
    const { body } = await tomas!.call('POST', '/tickets', {
      ...{ serviceId: 'other', title: `Scanner ${i}`, fileIds: [], alsoToldIds: [], via: 'portal' },
      answers: { site: 'Port Alder', what: 'Broken', impact: 'me', urgency: 'canWait' },
    });
    const { number } = body as { number: number };
    await app.listo.db.tables.tickets.update({ number }, { kind: 'incident' });
    await bia!.call('POST', `/tickets/${number}/things`, { thingId: `scan-${i}`, how: 'about' });
  }
  const figures = (await rui!.call('GET', '/things/figures?kindId=scanner')).body;
  // Five of ten months are over.
  expect(figures).toMatchObject({ count: 40, cost: 40_000, worth: 20_000 });
  expect(figures).toMatchObject({
    batches: [
      { model: 'Bad', all: 20, failed: 14, isBad: true },
      { model: 'Good', all: 20, failed: 0, isBad: false },
    ],
    expiring: [{ id: 'scan-0' }],
    byYear: [{ name: '2026', count: 40 }],
  });
});

test('kinds are made and changed by administrators; a form that does not hold is refused', async () => {
  const body = {
    ...{
      name: { en: 'Radio', pt: '' },
      form: { fields: [] },
      seenBy: 'everyone',
      keptBy: ['network'],
      isHandedOut: true,
    },
    ...{ serviceId: null, months: 60 },
  };
  expect((await bia!.call('POST', '/things/kinds', body)).status).toBe(403);
  const { id } = (await helder!.call('POST', '/things/kinds', body)).body as { id: string };
  const kinds = (await helder!.call('GET', '/things/kinds')).body as { id: string; name: object }[];
  expect(kinds.find((kind) => kind.id === id)).toMatchObject({
    name: { en: 'Radio', pt: 'Radio' },
    count: 0,
  });
  const put = (given: object) =>
    helder!.call('PUT', `/things/kinds/${id}`, { ...body, version: 1, ...given });
  const files = { name: 'proof', kind: 'files', needed: false, label: { en: 'Proof', pt: 'Prova' } };
  expect(faults((await put({ form: { fields: [files] } })) as never)).toBe('form.proof notAChoice');
  expect(faults((await put({ keptBy: ['nobody'] })) as never)).toBe('keptBy notAChoice');
  expect((await put({ months: 48 })).body).toEqual({ version: 2 });
  expect((await put({ months: 36 })).status).toBe(409);
});
