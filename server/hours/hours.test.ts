import type { Effect } from '../../contract/calendars';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** What happens to a team's work while it is off is the team's own setting. */
let app: TestListo;
let [helder, tomas, rui]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('hours');
  app.clock.set(Date.parse('2026-11-25T22:30:00Z'));
  [helder, tomas, rui] = await Promise.all(['helder', 'tomas', 'rui'].map(app.as));
});
afterAll(() => app.end());

type Team = { id: string; version: number; outOfHours: object };
type Page = { team: { id: string }; entries: { type: string; data: { words?: { en: string } } }[] };
const read = async (number: number): Promise<Page> => (await tomas!.call('GET', `/tickets/${number}`)).body;

/** A gate that stops (P1 when the whole fleet is hit, else lower). */
async function send(impact: string): Promise<number> {
  const answers = { site: 'Port Alder', what: 'All red', impact, urgency: 'stopsWork' };
  const { body } = await tomas!.call('POST', '/tickets', {
    serviceId: 'gate-broken',
    title: 'Gates',
    answers,
  });
  return (body as { number: number }).number;
}

async function setTeam(id: string, change: object) {
  const { body } = await helder!.call('GET', '/teams');
  const { version } = (body as Team[]).find((team) => team.id === id)!;
  return helder!.call('PATCH', `/teams/${id}`, { version, ...change });
}

test('at night urgent work goes to the team on duty, the rest waits; the requester reads when the team is back', async () => {
  // 23:10: the terminals' team closed at 23:00 and opens at 05:30; the ships' team never closes.
  app.clock.set(Date.parse('2026-11-25T23:10:00Z'));
  // Once it has closed, what arrives is what the test is about.
  await until(
    () => app.listo.db.tables.timers.findOne({ kind: 'teamCloses', ref: 'onboard' }),
    (timer) => timer !== null && timer.at > app.clock.now(),
  );
  const urgent = await send('fleet');
  const other = await send('person');
  const gone = await until(
    () => read(urgent),
    ({ team }) => team.id === 'network',
  );
  const told = gone.entries.find(({ type }) => type === 'outOfHours');
  expect(told?.data.words?.en).toMatch(/open Thursday.* 05:30/);
  const waits = await until(
    () => read(other),
    ({ entries }) => entries.some(({ type }) => type === 'outOfHours'),
  );
  expect(waits.team.id).toBe('onboard');
});

test('what becomes urgent while the team is off goes too; who asked is not told a second time', async () => {
  const number = await send('person');
  const toldIn = ({ entries }: Page): number => entries.filter(({ type }) => type === 'outOfHours').length;
  await until(
    () => read(number),
    (page) => toldIn(page) === 1,
  );
  const raise = async (impact: string): Promise<void> => {
    const { version } = (await rui!.call('GET', `/tickets/${number}`)).body as { version: number };
    const change = { version, impact, urgency: 'stopsWork' };
    expect((await rui!.call('PATCH', `/tickets/${number}`, change)).status).toBe(200);
  };
  // More urgent, yet not so urgent that it would have gone.
  await raise('site');
  await raise('fleet');
  const gone = await until(
    () => read(number),
    ({ team }) => team.id === 'network',
  );
  expect(gone.entries.filter(({ type }) => type === 'givenOn')).toHaveLength(1);
  expect(toldIn(gone)).toBe(1);
});

test('what is still open when the team closes goes then, once', async () => {
  app.clock.set(Date.parse('2026-11-26T22:59:00Z'));
  const number = await send('fleet');
  // Arrived, judged and timed while its team still works.
  await until(
    () => app.listo.db.tables.clocks.find({ ticketNumber: number }),
    (clocks) => clocks.length > 0,
  );
  app.clock.set(Date.parse('2026-11-26T23:00:30Z'));
  await until(
    () => read(number),
    ({ team }) => team.id === 'network',
  );
  const { entries } = await read(number);
  expect(entries.filter(({ type }) => type === 'givenOn')).toHaveLength(1);
  await until(
    () => app.listo.db.tables.timers.findOne({ kind: 'teamCloses', ref: 'onboard' }),
    (timer) => timer?.at === Date.parse('2026-11-27T23:00:00Z'),
  );
});

test('only those who set up the team may change its hours, and never to itself', async () => {
  const rule = { goesTo: 'onboard', priorities: ['P1'], words: null };
  const { body } = await rui!.call('GET', '/teams');
  const { version } = (body as Team[]).find(({ id }) => id === 'onboard')!;
  const byLead = await rui!.call('PATCH', '/teams/onboard', { version, outOfHours: rule });
  expect(byLead.status).toBe(403);
  expect((await setTeam('onboard', { outOfHours: rule })).body).toMatchObject({
    fields: [{ field: 'outOfHours.goesTo', code: 'notAChoice' }],
  });
  expect((await setTeam('onboard', { outOfHours: { ...rule, goesTo: null } })).status).toBe(200);
  const timers = await app.listo.db.tables.timers.find({ kind: 'teamCloses', ref: 'onboard' });
  expect(timers).toEqual([]);
});

test('a team that moves to another calendar takes its promises along', async () => {
  app.clock.set(Date.parse('2026-11-27T10:00:00Z'));
  const number = await send('site');
  const clockOf = () =>
    app.listo.db.tables.clocks.findOne({ ticketNumber: number, work: 'ticket', targetId: 'resolution' });
  await until(clockOf, (clock) => clock?.calendarId === 'terminals');
  // Also a team that had the calendar of all the rest so far: its promises get a choice of their own.
  expect((await setTeam('stores', { calendarId: 'ships' })).status).toBe(200);
  expect(
    (await app.listo.db.tables.targets.findOne({ id: 'resolution' }))!.definition.calendars,
  ).toContainEqual({
    when: { field: 'teamId', op: 'is', value: 'stores' },
    calendarId: 'ships',
  });
  expect((await setTeam('stores', { calendarId: 'office' })).status).toBe(200);
  // What it would move is said before; only to those who could do it.
  await app.listo.db.tables.members.insert({
    teamId: 'onboard',
    personId: 'helder',
    role: 'agent',
    groupId: null,
  } as never);
  const helder = await app.as('helder');
  const effect = (await helder.call('POST', '/teams/onboard/effect', { calendarId: 'ships' })).body as Effect;
  expect(effect.moved).toBeGreaterThan(0);
  expect((await clockOf())?.calendarId).toBe('terminals');
  const rui = await app.as('rui');
  expect((await rui.call('POST', '/teams/onboard/effect', { calendarId: 'ships' })).status).toBe(403);
  expect((await setTeam('onboard', { calendarId: 'ships' })).status).toBe(200);
  // A thread of its own reads the clocks anew; it takes a while to start.
  const moved = await until(clockOf, (clock) => clock?.calendarId === 'ships', 25_000);
  // It goes by a new edition, and the one before is kept as it was.
  const { targets, targetEditions } = app.listo.db.tables;
  const { edition } = (await targets.findOne({ id: 'resolution' }))!;
  expect(moved?.edition).toBe(edition);
  const before = await targetEditions.findOne({ targetId: 'resolution', edition: edition - 1 });
  expect(before?.definition.calendars).toContainEqual({
    when: { field: 'teamId', op: 'is', value: 'onboard' },
    calendarId: 'terminals',
  });
  expect((await setTeam('onboard', { calendarId: 'terminals' })).status).toBe(200);
});
