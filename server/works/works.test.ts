import nodeIcal from 'node-ical';
import type { Freeze, Reckoned, Work, WorkCalendar, WorkCard, WorkTemplate } from '../../contract/works';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { kindRow, thingRow } from '../testing/things';

/** Changes: written, reckoned, agreed to, done, reviewed, on the calendar. */
let app: TestListo;
let [sten, alda, tiago, ana, marta, rui, tomas, helder]: Person[] = [];
const NOW = Date.parse('2026-11-25T10:00:00Z');
const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Each test has days of its own, so that no work is in another's way. */
let day = 2;

beforeAll(async () => {
  app = await startTestListo('works');
  [sten, alda, tiago, ana, marta, rui, tomas, helder] = await Promise.all(
    ['sten', 'alda', 'tiago', 'ana', 'marta', 'rui', 'tomas', 'helder'].map(app.as),
  );
  const { thingKinds, things, thingNeeds } = app.listo.db.tables;
  await thingKinds.insertAll([kindRow({ id: 'net', isHandedOut: false })]);
  await things.insertAll([
    thingRow({ id: 'lineA', kindId: 'net', name: 'Line A' }),
    thingRow({ id: 'lineB', kindId: 'net', name: 'Line B' }),
    thingRow({ id: 'lamp', kindId: 'net', name: 'Lamp' }),
    thingRow({ id: 'tills', kindId: 'net', name: 'Tills', isWatched: true, siteId: 'ombra' }),
  ]);
  await thingNeeds.insertAll([
    { id: 'n1', thingId: 'tills', atLeast: 1, members: ['lineA', 'lineB'], isGone: false },
  ]);
});
afterAll(() => app.end());
beforeEach(() => {
  app.clock.set(NOW);
  day += 5;
});

const body = (given: object = {}) => ({
  ...{
    title: 'New switch',
    sort: 'normal',
    fromAt: NOW + day * DAY,
    toAt: NOW + day * DAY + 2 * HOUR,
    why: 'Old',
  },
  ...{
    test: 'Ping',
    takeBack: 'Old one back',
    thingIds: ['lineA'],
    problemNumber: null,
    riskSaid: null,
    riskReason: '',
  },
  ...given,
});
const make = (given: object = {}, by = alda!) =>
  by.call('POST', '/works', { serviceId: 'work-network', ...body(given) });
async function made(given: object = {}, by = alda!): Promise<number> {
  const answer = await make(given, by);
  if (answer.status !== 200) throw new Error(JSON.stringify(answer.body));
  return (answer.body as { number: number }).number;
}
const read = async (number: number, by = alda!): Promise<Work> =>
  (await by.call('GET', `/works/${number}`)).body;
const doIt = async (number: number, act: string, given: object = {}, by = alda!) =>
  by.call(act === 'review' ? 'PUT' : 'POST', `/works/${number}/${act}`, {
    version: (await read(number)).version,
    ...given,
  });
const submitted = async (given: object = {}, by = alda!): Promise<number> => {
  const number = await made(given, by);
  const answer = await doIt(number, 'submit', {}, by);
  if (answer.status !== 200) throw new Error(JSON.stringify(answer.body));
  return number;
};
const faults = (answer: { body: { fields: { field: string; code: string }[] } }): string =>
  answer.body.fields.map(({ field, code }) => `${field} ${code}`).join();
const stageIs = (number: number, stage: string) =>
  until(
    () => read(number),
    (work) => work.stage === stage,
  );
type Ask = { id: string; number: number };
async function decide(by: Person, number: number, decision: 'approve' | 'decline'): Promise<void> {
  const asks = (await by.call('GET', '/my/asks')).body as Ask[];
  const ask = asks.find((each) => each.number === number)!;
  const answer = await by.call('POST', `/asks/${ask.id}/decision`, { decision, words: 'Seen' });
  expect(answer.status).toBe(200);
}

test('a change is written by those who work in teams, of a template for changes, and nobody asks for one', async () => {
  expect((await make({}, tomas)).status).toBe(403);
  expect(faults(await alda!.call('POST', '/works', { serviceId: 'kiosk', ...body() }))).toBe(
    'serviceId notAChoice',
  );
  const asked = { serviceId: 'work-network', title: 'Please', answers: {} };
  for (const by of [tomas!, alda!]) expect((await by.call('POST', '/tickets', asked)).status).toBe(404);
  const services = (await tomas!.call('GET', '/services')).body as { id: string }[];
  expect(services.map(({ id }) => id)).not.toContain('work-network');
  const number = await made({ fromAt: null, toAt: null, thingIds: [] });
  expect(await read(number)).toMatchObject({ stage: 'draft', acts: ['change', 'submit', 'withdraw'] });
  expect((await tomas!.call('GET', `/works/${number}`)).status).toBe(404);
});

test('before it is submitted it says what it lacks; a window that ends before it begins is none at any time', async () => {
  const number = await made({ fromAt: null, toAt: null, thingIds: [], test: '' });
  expect(faults(await doIt(number, 'submit'))).toBe(
    'fromAt missing,toAt missing,things missing,test missing',
  );
  expect(faults(await make({ fromAt: NOW + HOUR, toAt: NOW + HOUR }))).toBe('toAt endsBeforeBegins');
  expect(faults(await make({ riskSaid: 'low', thingIds: ['nothing'] }))).toBe(
    'things notAChoice,riskReason missing',
  );
});

test('risk comes of what hangs on it and of how such changes went; one of two lines only weakens', async () => {
  const check = async (thingIds: string[]): Promise<Reckoned> =>
    (
      await alda!.call('POST', '/works/check', {
        number: null,
        serviceId: 'work-network',
        thingIds,
        fromAt: null,
        toAt: null,
      })
    ).body;
  // Nothing is known of how such changes went: that is no small chance.
  expect(await check(['lamp'])).toMatchObject({
    impact: 'low',
    likelihood: 'high',
    risk: 'medium',
    people: 0,
  });
  expect(await check(['lineA'])).toMatchObject({
    impact: 'medium',
    downCount: 0,
    weakenedCount: 1,
    risk: 'high',
  });
  const both = await check(['lineA', 'lineB']);
  expect(both).toMatchObject({ impact: 'high', downCount: 1, risk: 'high' });
  expect(both.watched.map(({ id }) => id)).toEqual(['tills']);
  expect(both.people).toBeGreaterThan(0);
});

test('it is agreed to by risk: by the lead, then by the board; then it is planned, done and closed with its ticket', async () => {
  const number = await submitted();
  expect(await read(number)).toMatchObject({ stage: 'asked', risk: 'high', acts: ['change', 'withdraw'] });
  expect((await doIt(number, 'start')).status).toBe(409);
  await decide(sten!, number, 'approve');
  await until(
    async () => ((await ana!.call('GET', '/my/asks')).body as Ask[]).some((ask) => ask.number === number),
    Boolean,
  );
  await decide(ana!, number, 'approve');
  expect((await read(number)).stage).toBe('asked');
  await decide(marta!, number, 'approve');
  await stageIs(number, 'planned');
  expect((await doIt(number, 'start')).status).toBe(200);
  expect(await read(number)).toMatchObject({ stage: 'goingOn', acts: ['end'] });
  expect((await doIt(number, 'end', { outcome: 'done', words: 'It runs' })).status).toBe(200);
  expect(await read(number)).toMatchObject({ stage: 'done', needsReview: false, acts: ['review'] });
  const ticket = (await alda!.call('GET', `/tickets/${number}`)).body as { state: string; solution: string };
  expect(ticket).toMatchObject({ state: 'done', solution: 'It runs' });
});

test('what it is decided by is changed through the change alone, not through the answers of its ticket', async () => {
  const number = await submitted({ thingIds: ['lamp'] });
  const { version } = (await alda!.call('GET', `/tickets/${number}`)).body as { version: number };
  expect((await alda!.call('PUT', `/tickets/${number}/answers`, { version, answers: {} })).status).toBe(409);
  expect((await read(number)).stage).toBe('asked');
});

test('what is small is asked of the lead alone, and declined it ends', async () => {
  const number = await submitted({ thingIds: ['lamp'] });
  expect(((await ana!.call('GET', '/my/asks')).body as Ask[]).some((ask) => ask.number === number)).toBe(
    false,
  );
  await decide(sten!, number, 'decline');
  await stageIs(number, 'declined');
  expect((await read(number)).acts).toEqual([]);
});

test('nobody agrees to their own change', async () => {
  const number = await submitted({ thingIds: ['lamp'] }, sten!);
  const mine = (await sten!.call('GET', '/my/asks')).body as Ask[];
  expect(mine.some((ask) => ask.number === number)).toBe(false);
  const asks = await app.listo.db.tables.asks.find({ ticketNumber: number });
  expect(asks.length).toBeGreaterThan(0);
  expect(asks.flatMap(({ askedId, voterId }) => [askedId, voterId])).not.toContain('sten');
});

test('put at another time, whoever agreed is asked anew; what says nothing new is no change', async () => {
  const number = await submitted({ thingIds: ['lamp'] });
  await decide(sten!, number, 'approve');
  const { version } = await stageIs(number, 'planned');
  const window = { fromAt: NOW + day * DAY + HOUR, toAt: NOW + day * DAY + 2 * HOUR };
  expect(
    (await alda!.call('PUT', `/works/${number}/window`, { version: version - 1, ...window })).status,
  ).toBe(409);
  expect((await alda!.call('PUT', `/works/${number}/window`, { version, ...window })).status).toBe(200);
  expect(await read(number)).toMatchObject({ stage: 'asked', ...window });
  await decide(sten!, number, 'approve');
  const planned = await stageIs(number, 'planned');
  const again = { version: planned.version, ...body({ ...window, thingIds: ['lamp'] }) };
  expect((await alda!.call('PUT', `/works/${number}`, again)).body).toEqual({ version: planned.version });
  const past = {
    version: planned.version,
    ...body({ thingIds: ['lamp'], fromAt: NOW - DAY, toAt: NOW - HOUR }),
  };
  expect(faults(await alda!.call('PUT', `/works/${number}`, past))).toBe('fromAt isOver');
  expect((await read(number)).stage).toBe('planned');
  expect((await rui!.call('PUT', `/works/${number}`, again)).status).toBe(403);
});

// Common practice, no source: a standard change is not decided again, an emergency is agreed to and reviewed afterwards.
test('a standard change is not decided again, and loses that once one goes wrong', async () => {
  const firmware = { serviceId: 'work-firmware', ...body({ sort: 'standard', thingIds: ['lamp'] }) };
  const start = async (): Promise<number> => {
    const { number } = (await rui!.call('POST', '/works', firmware)).body as { number: number };
    expect((await doIt(number, 'submit', {}, rui)).status).toBe(200);
    return number;
  };
  const number = await start();
  expect((await read(number)).stage).toBe('planned');
  expect((await doIt(number, 'start', {}, rui)).status).toBe(200);
  expect((await doIt(number, 'end', { outcome: 'failed', words: 'Readers dead' }, rui)).status).toBe(200);
  expect(await read(number)).toMatchObject({ stage: 'failed', needsReview: true });
  const templates = (await rui!.call('GET', '/works/templates')).body as WorkTemplate[];
  const template = templates.find(({ serviceId }) => serviceId === 'work-firmware')!;
  expect(template).toMatchObject({ isStandard: false, past: { failed: 1, all: 1 }, advice: null });
  const { number: next } = (await rui!.call('POST', '/works', firmware)).body as { number: number };
  expect(faults(await doIt(next, 'submit', {}, rui))).toBe('sort notStandard');
  expect((await doIt(number, 'review', { review: 'Charge them first' }, rui)).status).toBe(200);
  expect(await read(number)).toMatchObject({ needsReview: false, review: 'Charge them first' });
});

test('an emergency begins at once; agreed to afterwards, its ticket is done with it', async () => {
  const number = await submitted({
    sort: 'emergency',
    thingIds: ['lamp'],
    fromAt: NOW - HOUR,
    toAt: NOW + HOUR,
  });
  expect(await read(number)).toMatchObject({ stage: 'asked', acts: ['change', 'withdraw', 'start'] });
  expect((await doIt(number, 'start')).status).toBe(200);
  expect((await doIt(number, 'end', { outcome: 'done', words: 'Lamp lit' })).status).toBe(200);
  expect(await read(number)).toMatchObject({ stage: 'done', needsReview: true });
  await decide(sten!, number, 'approve');
  await until(
    async () => ((await alda!.call('GET', `/tickets/${number}`)).body as { state: string }).state,
    (state) => state === 'done',
  );
});

test('a thing that is retired meanwhile is not worked on', async () => {
  await app.listo.db.tables.things.insert(thingRow({ id: 'old', kindId: 'net', name: 'Old' }));
  const number = await submitted({ sort: 'emergency', thingIds: ['old'], fromAt: NOW, toAt: NOW + HOUR });
  await app.listo.db.tables.things.update({ id: 'old' }, { state: 'retired' });
  expect(faults(await doIt(number, 'start'))).toBe('things retired');
  expect((await read(number)).reckoned.retired.map(({ id }) => id)).toEqual(['old']);
});

test('clashes and freezes are reckoned while it is written, and the next free time is found', async () => {
  const start = NOW + day * DAY;
  const first = await submitted({ fromAt: start, toAt: start + 2 * HOUR });
  const check = async (given: object): Promise<Reckoned['clashes']> => {
    const asked = {
      number: null,
      serviceId: 'work-network',
      thingIds: ['lineB'],
      fromAt: start,
      toAt: start + HOUR,
      ...given,
    };
    return ((await tiago!.call('POST', '/works/check', asked)).body as Reckoned).clashes;
  };
  const [together] = await check({});
  expect(together).toMatchObject({ kind: 'together', from: start, to: start + HOUR });
  expect(together!.works.map(({ number }) => number)).toContain(first);
  expect(together!.things.map(({ id }) => id)).toEqual(['tills']);
  expect((await check({ thingIds: ['lineA'] })).map(({ kind }) => kind)).toEqual(['same']);
  expect(await check({ number: first, thingIds: ['lineA'] })).toEqual([]);
  expect(
    (await check({ thingIds: ['lineA', 'lineB'], fromAt: start + 3 * HOUR, toAt: start + 4 * HOUR })).map(
      ({ kind }) => kind,
    ),
  ).toEqual(['alone']);
  const frozen = {
    name: { en: 'Season', pt: '' },
    fromAt: start + 2 * HOUR,
    toAt: start + 5 * HOUR,
    thingIds: ['tills'],
  };
  expect((await alda!.call('POST', '/freezes', frozen)).status).toBe(403);
  expect(faults(await sten!.call('POST', '/freezes', { ...frozen, toAt: start, thingIds: [] }))).toBe(
    'toAt endsBeforeBegins,things missing',
  );
  const { id } = (await sten!.call('POST', '/freezes', { ...frozen, thingIds: null })).body as { id: string };
  const [freeze] = await check({ fromAt: start + 4 * HOUR, toAt: start + 6 * HOUR });
  expect(freeze).toMatchObject({
    kind: 'frozen',
    freeze: { id, name: { pt: 'Season' } },
    from: start + 4 * HOUR,
    to: start + 5 * HOUR,
  });
  const ask = {
    number: null,
    serviceId: 'work-network',
    thingIds: ['lineB'],
    minutes: 60,
    notBefore: start,
    notAfter: start + DAY,
    outsideCalendarId: null,
  };
  expect((await tiago!.call('POST', '/works/slot', ask)).body).toEqual({ fromAt: start + 5 * HOUR });
  expect((await tiago!.call('POST', '/works/slot', { ...ask, notAfter: start + 5 * HOUR })).body).toEqual({
    fromAt: null,
  });
  const slot = (await tiago!.call('POST', '/works/slot', { ...ask, outsideCalendarId: 'office' })).body as {
    fromAt: number;
  };
  const office = (await app.listo.calendars.getAll()).office!;
  expect(office.workingBetween(slot.fromAt, slot.fromAt + HOUR)).toBe(0);
  const calendar = (await tiago!.call('GET', `/works/calendar?from=${start}&to=${start + DAY}`))
    .body as WorkCalendar;
  expect(calendar.works.map(({ number }) => number)).toContain(first);
  expect(calendar.freezes.map((each: Freeze) => each.id)).toEqual([id]);
  expect((await sten!.call('DELETE', `/freezes/${id}`)).status).toBe(200);
  expect((await tiago!.call('GET', `/works/calendar?from=${start}&to=${start}`)).status).toBe(422);
});

test('an incident within two days of a change at what it hangs on shows that change', async () => {
  const number = await submitted({ sort: 'emergency', thingIds: ['lineA'], fromAt: NOW, toAt: NOW + HOUR });
  await doIt(number, 'start');
  await doIt(number, 'end', { outcome: 'done', words: 'Done' });
  const report = async (): Promise<number> => {
    const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
    const { body: ticket } = await tomas!.call('POST', '/tickets', {
      serviceId: 'kiosk',
      title: 'Till dead',
      answers,
    });
    const made2 = (ticket as { number: number }).number;
    await rui!.call('POST', `/tickets/${made2}/things`, { thingId: 'tills', how: 'about' });
    return made2;
  };
  const beside = async (incident: number) =>
    (await rui!.call('GET', `/tickets/${incident}/works`)).body as WorkCard[];
  app.clock.pass(DAY);
  expect((await beside(await report())).map((each) => each.number)).toContain(number);
  app.clock.pass(2 * DAY);
  expect(await beside(await report())).toEqual([]);
});

test('the calendar is subscribed to by an address of one’s own, which a new one ends', async () => {
  const number = await submitted({ title: 'Seen from outside' });
  const { address } = (await alda!.call('POST', '/works/feed', {})).body as { address: string };
  const path = new URL(address).pathname;
  const answer = await fetch(`${app.url}${path}`);
  expect(answer.headers.get('content-type')).toContain('text/calendar');
  const events = Object.values(nodeIcal.sync.parseICS(await answer.text()));
  expect(
    events.some(
      (event) =>
        event?.type === 'VEVENT' && JSON.stringify(event.summary).includes(`${number} Seen from outside`),
    ),
  ).toBe(true);
  await alda!.call('POST', '/works/feed', {});
  expect((await fetch(`${app.url}${path}`)).status).toBe(404);
  expect((await tomas!.call('POST', '/works/feed', {})).status).toBe(403);
});

test('a template is set by whoever sets up its team', async () => {
  const set = {
    version: 1,
    isStandard: true,
    minutes: 30,
    why: { en: 'So', pt: '' },
    test: { en: '', pt: '' },
    takeBack: { en: '', pt: '' },
    thingIds: ['lamp'],
  };
  expect((await alda!.call('PUT', '/works/templates/work-network', set)).status).toBe(403);
  expect((await helder!.call('PUT', '/works/templates/work-network', set)).status).toBe(200);
  expect((await helder!.call('PUT', '/works/templates/work-network', set)).status).toBe(409);
  expect((await helder!.call('PUT', '/works/templates/kiosk', set)).status).toBe(404);
});
