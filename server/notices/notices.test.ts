import type { Notice, NoticeCard, ReaderNotice } from '../../contract/notices';
import { CALL_BACK_MS } from '../../core/notices';
import { kindRow, thingRow } from '../testing/things';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** Notices: published, read by those they concern, told of once, ended with their tickets. */
let app: TestListo;
let [rui, hanna, sofia, bia, tomas, lena, ines]: Person[] = [];
const NOW = Date.parse('2026-11-25T10:00:00Z');
const HOUR = 3_600_000;
const text = (en: string, pt = ''): { en: string; pt: string } => ({ en, pt });

beforeAll(async () => {
  app = await startTestListo('notices');
  [rui, hanna, sofia, bia, tomas, lena, ines] = await Promise.all(
    ['rui', 'hanna', 'sofia', 'bia', 'tomas', 'lena', 'ines'].map(app.as),
  );
});
afterAll(() => app.end());
beforeEach(() => app.clock.set(NOW));

const BODY = {
  ...{
    kind: 'outage',
    title: text('Payment terminals down', 'Terminais em baixo'),
    words: text('Take cash meanwhile.'),
  },
  ...{
    forAgents: '',
    audience: [],
    serviceIds: ['kiosk'],
    thingIds: [],
    teamId: 'onboard',
    fromAt: NOW - HOUR,
  },
  ...{ untilAt: null, isPublic: false, isMajor: false, leadId: null },
};
const publish = async (given: object = {}, by = rui!) => by.call('POST', '/notices', { ...BODY, ...given });
async function published(given: object = {}): Promise<string> {
  const { status, body } = await publish(given);
  if (status !== 200) throw new Error(JSON.stringify(body));
  return (body as { id: string }).id;
}
const read = async (id: string, by = rui!): Promise<Notice> => (await by.call('GET', `/notices/${id}`)).body;
const mine = async (by: Person, query = ''): Promise<ReaderNotice[]> =>
  (await by.call('GET', `/my/notices${query}`)).body;
const faults = (answer: { body: { fields: { field: string; code: string }[] } }): string =>
  answer.body.fields.map(({ field, code }) => `${field} ${code}`).join();

async function create(by: Person, title: string): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await by.call('POST', '/tickets', { serviceId: 'kiosk', title, answers });
  return (body as { number: number }).number;
}
type Page = {
  state: string;
  solution: string | null;
  entries: { type: string; data: { personIds?: string[] } }[];
};
const ticket = async (number: number, by = rui!): Promise<Page> =>
  (await by.call('GET', `/tickets/${number}`)).body;
type Told = { event: string; number: number | null; title: string; words: { en: string } | null };
const toldOf = async (by: Person): Promise<Told[]> => {
  const { body } = await by.call('GET', '/notifications');
  return (body as { notifications: Told[] }).notifications.filter(({ event }) => event === 'noticeTold');
};
const say = async (id: string, words: string, by = rui!) =>
  by.call('POST', `/notices/${id}/updates`, {
    version: (await read(id)).version,
    words: text(words),
    untilAt: null,
  });

test('a notice names its faults, and only those who work in teams publish one', async () => {
  expect((await publish({}, tomas)).status).toBe(403);
  const answer = await publish({
    title: text(''),
    untilAt: NOW - 2 * HOUR,
    teamId: 'nobody',
    leadId: 'nobody',
    serviceIds: ['none'],
  });
  expect(faults(answer)).toBe(
    'title missing,untilAt endsBeforeBegins,teamId notAChoice,leadId notAChoice,serviceIds notAChoice',
  );
  expect(faults(await publish({ kind: 'planned' }))).toBe('untilAt missing');
});

test('it stands at once with those it concerns, and with nobody else', async () => {
  const id = await published({ audience: [{ by: 'onVessel' }] });
  expect((await mine(lena!)).map((notice) => notice.id)).toContain(id);
  expect((await mine(tomas!)).map((notice) => notice.id)).not.toContain(id);
  expect((await tomas!.call('PUT', `/notices/${id}/follow`, { isFollowed: true })).status).toBe(404);
  expect((await tomas!.call('GET', `/notices/${id}`)).status).toBe(404);
  const reach = await rui!.call('POST', '/notices/reach', { audience: [{ by: 'onVessel' }] });
  expect((await read(id)).reach).toBe((reach.body as { people: number }).people);
  expect((await rui!.call('POST', `/notices/${id}/call-back`)).status).toBe(200);
});

test('within a minute it can be called back, and nobody was written to; after it, no more', async () => {
  const number = await create(tomas!, 'Terminal dead');
  const id = await published({ numbers: [number] });
  app.clock.pass(CALL_BACK_MS - 10_000);
  expect((await bia!.call('POST', `/notices/${id}/call-back`)).status).toBe(403);
  expect((await rui!.call('POST', `/notices/${id}/call-back`)).status).toBe(200);
  expect((await rui!.call('POST', `/notices/${id}/call-back`)).status).toBe(409);
  expect((await mine(tomas!)).some((notice) => notice.id === id)).toBe(false);
  app.clock.pass(2 * CALL_BACK_MS);
  const later = await published();
  app.clock.pass(CALL_BACK_MS);
  expect((await rui!.call('POST', `/notices/${later}/call-back`)).status).toBe(409);
  await until(
    async () => app.listo.db.tables.timers.find({ kind: 'tellNotice' }),
    (rows) => rows.length === 0,
  );
  expect(await toldOf(tomas!)).toEqual([]);
});

test('everyone tied to it hears of each update once, however many tickets they have; followers without one too', async () => {
  const first = await create(tomas!, 'Terminal 1 dead');
  const second = await create(tomas!, 'Terminal 2 dead');
  const id = await published({ ofTicket: first });
  expect((await ines!.call('PUT', `/notices/${id}/follow`, { isFollowed: true })).status).toBe(200);
  expect((await mine(ines!)).find((notice) => notice.id === id)).toMatchObject({
    isFollowed: true,
    followers: 1,
    ownTicket: null,
  });
  app.clock.pass(CALL_BACK_MS);
  await until(
    () => toldOf(tomas!),
    (told) => told.length === 1,
  );
  // Tied afterwards: its requester knows already, and is not told again.
  expect((await rui!.call('POST', `/notices/${id}/tickets`, { numbers: [second, first] })).status).toBe(200);
  const told = await until(
    () => toldOf(ines!),
    (all) => all.length === 1,
  );
  expect(told[0]).toMatchObject({ number: null, title: 'Payment terminals down' });
  expect((await say(id, 'A supplier is on it.')).status).toBe(200);
  await until(
    () => toldOf(tomas!),
    (all) => all.length === 2,
  );
  await until(
    () => toldOf(ines!),
    (all) => all.length === 2,
  );
  const page = await ticket(second);
  const entries = page.entries.filter(({ type }) => type === 'noticeTold');
  expect(entries).toHaveLength(2);
  expect(entries.map(({ data }) => data.personIds)).toEqual([[], []]);
  const notice = await read(id);
  expect(notice).toMatchObject({ tickets: 2, people: 1, sites: 1, openTickets: 2, followers: 1 });
  expect(notice.line.map(({ kind }) => kind)).toEqual(['began', 'told', 'tied', 'told']);
  expect((await mine(tomas!)).find((each) => each.id === id)).toMatchObject({ ownTicket: second });
});

test('a ticket that comes later hears what is known by the update that was told last', async () => {
  const id = await published();
  app.clock.pass(CALL_BACK_MS);
  await until(
    async () => app.listo.db.tables.timers.find({ kind: 'tellNotice' }),
    (rows) => rows.length === 0,
  );
  const number = await create(lena!, 'Payment does not go');
  await rui!.call('POST', `/notices/${id}/tickets`, { numbers: [number] });
  const told = await until(
    () => toldOf(lena!),
    (all) => all.some((each) => each.number === number),
  );
  expect(told.find((each) => each.number === number)!.words!.en).toContain('Take cash meanwhile.');
  expect((await rui!.call('DELETE', `/notices/${id}/tickets/${number}`)).status).toBe(200);
  expect((await rui!.call('DELETE', `/notices/${id}/tickets/${number}`)).status).toBe(404);
  expect((await ticket(number)).entries.map(({ type }) => type)).toEqual(
    expect.arrayContaining(['noticeTied', 'noticeUntied']),
  );
});

test('it is ended once, and its tickets are done with it in their language; two people ending it at once are told apart', async () => {
  const numbers = await Promise.all(
    Array.from({ length: 22 }, (_, i) => create(i === 0 ? ines! : tomas!, `Stuck ${i}`)),
  );
  const id = await published();
  const { body } = await rui!.call('POST', `/notices/${id}/tickets`, { numbers });
  const { jobId } = body as { jobId: string };
  await until(
    async () => (await rui!.call('GET', `/bulk/${jobId}`)).body as { state: string; done: number },
    ({ state, done }) => state === 'done' && done === 22,
  );
  const { version } = await read(id);
  const ending = {
    version,
    words: text('All terminals work again.', 'Todos os terminais funcionam.'),
    isFinishing: true,
  };
  const [one, other] = await Promise.all(
    [rui!, hanna!].map((by) => by.call('POST', `/notices/${id}/end`, ending)),
  );
  expect([one!.status, other!.status].sort()).toEqual([200, 409]);
  for (const number of numbers.slice(0, 2))
    await until(
      () => ticket(number),
      ({ state }) => state === 'done',
    );
  const people = await app.listo.db.tables.people.find({ id: ['ines', 'tomas'] });
  const languageOf = (wanted: string) => people.find((person) => person.id === wanted)!.language;
  expect((await ticket(numbers[0]!)).solution).toBe(ending.words[languageOf('ines')]);
  expect((await ticket(numbers[1]!)).solution).toBe(ending.words[languageOf('tomas')]);
  const notice = await until(
    () => read(id),
    ({ openTickets }) => openTickets === 0,
  );
  expect(notice).toMatchObject({ state: 'ended', endedAt: expect.any(Number) });
  const review = { version: notice.version, review: 'Two lines of supply from now on.' };
  expect((await rui!.call('PUT', `/notices/${id}/review`, review)).status).toBe(200);
  expect((await read(id)).review).toBe(review.review);
});

test('what is in confidence is not told by a notice, not even by its title', async () => {
  const answers = { about: 'A colleague', what: 'Not for others' };
  const services = await app.listo.db.tables.services.find({ teamId: 'people' });
  const people = await app.listo.db.tables.teams.findOne({ id: 'people' });
  expect(people!.isConfidential).toBe(true);
  const number = await create(tomas!, 'A word in confidence');
  await app.listo.db.tables.tickets.update(
    { number },
    { teamId: 'people', isConfidential: true, serviceId: services[0]!.id, answers },
  );
  expect((await publish({ ofTicket: number })).status).toBe(404);
  expect((await publish({ ofWork: number })).status).toBe(404);
  const own = await publish({ ofTicket: number, teamId: 'people' }, await app.as('orla'));
  expect(faults(own)).toBe('ofTicket confidential');
  const id = await published();
  expect((await rui!.call('POST', `/notices/${id}/tickets`, { numbers: [number] })).status).toBe(404);
  expect((await read(id)).tickets).toBe(0);
});

test('what one writes about is known before it is sent', async () => {
  const id = await published({ title: text('No signal on the quay', 'Sem sinal no cais') });
  const fitOf = async (query: string): Promise<number> =>
    (await mine(tomas!, query)).find((each) => each.id === id)!.fit;
  expect(await fitOf('?q=there%20is%20no%20signal%20at%20the%20quay')).toBeGreaterThan(0.5);
  expect(await fitOf('?q=new%20laptop')).toBe(0);
  expect(await fitOf('?service=kiosk')).toBeGreaterThan(0);
  const number = await create(tomas!, 'Signal gone on the quay');
  const of = (await rui!.call('GET', `/tickets/${number}/notices`)).body as {
    tied: NoticeCard[];
    fitting: NoticeCard[];
  };
  expect(of.tied).toEqual([]);
  expect(of.fitting[0]!.id).toBe(id);
});

test('without signing in one reads what is meant for everyone, and nothing else', async () => {
  const id = await published({ isPublic: true, forAgents: 'Call the supplier' });
  await published({ title: text('Only within') });
  const answer = await fetch(`${app.url}/api/v1/open/notices`);
  const open = (await answer.json()) as { id: string; title: { en: string } }[];
  expect(open.map((each) => each.id)).toEqual([id]);
  expect(JSON.stringify(open)).not.toContain('Call the supplier');
});

test('those of other teams read it, and do not change it', async () => {
  const id = await published();
  expect((await read(id, sofia)).mayChange).toBe(false);
  expect((await say(id, 'Nonsense', sofia)).status).toBe(403);
  const notice = await read(id);
  const changed = { ...BODY, isMajor: true, leadId: 'sofia', version: notice.version };
  expect((await rui!.call('PUT', `/notices/${id}`, changed)).status).toBe(200);
  expect((await rui!.call('PUT', `/notices/${id}`, changed)).status).toBe(409);
  const led = await read(id, sofia);
  expect(led).toMatchObject({ isMajor: true, mayChange: true, lead: { id: 'sofia' } });
  expect(led.line.map(({ kind }) => kind)).toContain('lead');
  const list = (await rui!.call('GET', '/notices')).body as NoticeCard[];
  expect(list.map((each) => each.id)).toContain(id);
});

test('what was kept of what is promised is reckoned from the notices of a thing, by the calendar that it is promised by', async () => {
  const { thingKinds, things } = app.listo.db.tables;
  await thingKinds.insert(kindRow({ id: 'net', keptBy: ['onboard'] }));
  await things.insert(thingRow({ id: 'link', kindId: 'net', isWatched: true }));
  const id = await published({ thingIds: ['link'], fromAt: Date.parse('2026-11-25T08:00:00Z') });
  const { version } = await read(id);
  await rui!.call('POST', `/notices/${id}/end`, { version, words: text('Works again'), isFinishing: false });
  type Answer = {
    calendarId: string | null;
    months: { lost: number; failures: number; notices: { id: string }[]; share: number }[];
  };
  const time = async (): Promise<Answer> =>
    (await rui!.call('GET', '/things/link/service-time?months=2')).body;
  const always = await time();
  expect(always.months[0]).toMatchObject({ failures: 1, notices: [{ id }] });
  // From eight until it was ended, shortly after ten.
  expect(Math.round(always.months[0]!.lost / HOUR)).toBe(2);
  expect(always.months[1]).toMatchObject({ lost: 0, failures: 0, share: 1 });
  expect((await sofia!.call('PUT', '/things/link/promised', { calendarId: 'office' })).status).toBe(403);
  expect(faults(await rui!.call('PUT', '/things/link/promised', { calendarId: 'none' }))).toBe(
    'calendarId notAChoice',
  );
  expect((await rui!.call('PUT', '/things/link/promised', { calendarId: 'office' })).status).toBe(200);
  const office = await time();
  expect(office.calendarId).toBe('office');
  expect(office.months[0]!.lost).toBeLessThanOrEqual(always.months[0]!.lost);
  expect(office.months[0]!.share).toBeLessThan(always.months[0]!.share);
});
