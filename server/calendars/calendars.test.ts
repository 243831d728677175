import { factsOfEntry } from '../../core/journal';
import type { Calendar, Effect } from '../../contract/calendars';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** Working calendars, changed by those who may, with everything that runs on them following. */
let app: TestListo;
let [helder, hanna, tomas]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('calendars');
  // A Wednesday morning; every terminal is open.
  // Who sets up calendars sees what they move as far as they may read it.
  const reader = { teamId: 'onboard', personId: 'helder', role: 'agent', groupId: null } as const;
  await app.listo.db.tables.members.insert(reader as never);
  [helder, hanna, tomas] = await Promise.all(['helder', 'hanna', 'tomas'].map(app.as));
});
afterAll(() => app.end());

const list = async (person: Person): Promise<Calendar[]> => (await person.call('GET', '/calendars')).body;
const find = async (id: string): Promise<Calendar> => (await list(helder!)).find((each) => each.id === id)!;
const kiosk = {
  serviceId: 'kiosk',
  title: 'Kiosk 3 frozen',
  answers: { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' },
};
const resolveOf = async (number: number) =>
  app.listo.db.tables.clocks.findOne({ ticketNumber: number, work: 'ticket', targetId: 'resolution' });

test('a change says what it would move, then moves every clock and timer that runs on it, and back', async () => {
  const { body } = await tomas!.call('POST', '/tickets', kiosk);
  const { number } = body as { number: number };
  const before = (await until(
    () => resolveOf(number),
    (clock) => clock?.dueAt != null,
  ))!;
  const { spec, version } = await find('terminals');
  // Terminals that close at 16:00: eight hours are no longer over today.
  const early = Object.fromEntries(
    Object.keys(spec.weekly).map((day) => [day, [{ from: '05:30', to: '16:00' }]]),
  );
  const changed = { ...spec, weekly: early };
  const effect = (await helder!.call('POST', '/calendars/terminals/effect', { spec: changed }))
    .body as Effect;
  expect(effect).toMatchObject({ tickets: 1, late: 0, noLongerLate: 0 });
  expect(effect.moved).toBeGreaterThanOrEqual(1);
  expect((await resolveOf(number))!.dueAt).toBe(before.dueAt);

  const saved = await helder!.call('PUT', '/calendars/terminals', { version, spec: changed });
  expect(saved).toMatchObject({ status: 200, body: { version: version + 1 } });
  const moved = (await until(
    () => resolveOf(number),
    (clock) => clock?.dueAt !== before.dueAt,
  ))!;
  // Its team closes then, too.
  const closing = await app.listo.db.tables.timers.findOne({ kind: 'teamCloses', ref: 'onboard' });
  expect(new Date(closing!.at).toISOString().slice(11, 16)).toBe('16:00');
  // Six hours until 16:00 and two more from 05:30.
  expect(new Date(moved.dueAt!).toISOString().slice(0, 16)).toBe('2026-11-26T07:30');
  expect(moved.owed.at(-1)).toEqual(['late', moved.dueAt]);

  const undone = await helder!.call('PUT', '/calendars/terminals', { version: version + 1, spec });
  expect(undone.status).toBe(200);
  await until(
    () => resolveOf(number),
    (clock) => clock?.dueAt === before.dueAt,
  );
});

test('a calendar that would make work late names it', async () => {
  const { body } = await tomas!.call('POST', '/tickets', kiosk);
  const { number } = body as { number: number };
  await until(
    () => resolveOf(number),
    (clock) => clock?.dueAt != null,
  );
  app.clock.pass(6 * 3_600_000);
  const { spec } = await find('terminals');
  const narrow = {
    ...spec,
    exceptions: [],
    weekly: { ...spec.weekly, wed: [{ from: '10:00', to: '10:05' }] },
  };
  const wide = { ...spec, hoursPerDay: 24 };
  const effectOf = async (changed: object): Promise<Effect> =>
    (await helder!.call('POST', '/calendars/terminals/effect', { spec: changed })).body;
  // With hardly any working time counted, what is late by now would not be.
  expect((await effectOf(narrow)).noLongerLate).toBeGreaterThan(0);
  expect(await effectOf(wide)).toMatchObject({ late: 0, noLongerLate: 0, moved: 0 });
  app.clock.pass(-6 * 3_600_000);
});

test('what was told of is not told again where a calendar moves it', async () => {
  const { body } = await tomas!.call('POST', '/tickets', kiosk);
  const { number } = body as { number: number };
  const lateWords = async () => {
    const entries = await app.listo.db.tables.journal.find({ ticketNumber: number, type: 'late' });
    return entries
      .map(factsOfEntry)
      .filter(({ targetId }) => targetId === 'first-answer')
      .map(({ dueAt }) => dueAt);
  };
  const clockOf = () =>
    app.listo.db.tables.clocks.findOne({ ticketNumber: number, targetId: 'first-answer', work: 'ticket' });
  const { countedFrom } = (await until(clockOf, (clock) => clock?.state === 'running'))!;
  app.clock.pass(6 * 3_600_000);
  const [told] = await until(lateWords, (words) => words.length === 1);
  const { spec, version } = await find('terminals');
  const minuteOf = (after: number) => new Date(countedFrom! + after * 60_000).toISOString().slice(11, 16);
  const [day] = spec.weekly.wed!;
  const wed = [
    { from: day!.from, to: minuteOf(2) },
    { from: minuteOf(7), to: day!.to },
  ];
  const changed = { ...spec, weekly: { ...spec.weekly, wed } };
  expect((await helder!.call('PUT', '/calendars/terminals', { version, spec: changed })).status).toBe(200);
  const moved = await until(clockOf, (clock) => clock!.breachedAt !== told);
  expect(moved!.owed).toEqual([]);
  expect(moved!.nextAt).toBeNull();
  expect(await lateWords()).toEqual([told]);
  await helder!.call('PUT', '/calendars/terminals', { version: version + 1, spec });
  app.clock.pass(-6 * 3_600_000);
});

test('who may: an administrator all, a team administrator what only their team keeps, others look', async () => {
  const rights = async (person: Person) => {
    const calendars = await list(person);
    return Object.fromEntries(calendars.map(({ id, mayEdit }) => [id, mayEdit]));
  };
  expect((await rights(helder!)).office).toBe(true);
  expect(await rights(hanna!)).toMatchObject({ office: false, terminals: false });
  const { spec, version } = await find('office');
  const refused = await hanna!.call('PUT', '/calendars/office', { version, spec });
  expect(refused.status).toBe(403);
  expect((await tomas!.call('POST', '/calendars', { spec })).status).toBe(403);
  const made = await hanna!.call('POST', '/calendars', { spec: { ...spec, name: 'Ours' } });
  expect(made.status).toBe(200);
  const { id } = made.body as { id: string };
  expect((await hanna!.call('DELETE', `/calendars/${id}`)).status).toBe(200);
});

test('a calendar in use is not deleted, and says who uses it', async () => {
  const { status, body } = await helder!.call('DELETE', '/calendars/ships');
  expect(status).toBe(409);
  const { facts } = body as { facts: { teams: string[]; targets: string[] } };
  expect(facts.teams).toEqual(['network']);
  expect(facts.targets).toContain('Network takes over');
});

test('two who change a calendar: the second sees what is there now', async () => {
  const { spec, version } = await find('desk');
  const first = { ...spec, name: 'Service desk hours' };
  expect((await helder!.call('PUT', '/calendars/desk', { version, spec: first })).status).toBe(200);
  const { status, body } = await helder!.call('PUT', '/calendars/desk', { version, spec });
  expect(status).toBe(409);
  expect((body as { differences: { theirs: object }[] }).differences[0]!.theirs).toMatchObject({
    name: 'Service desk hours',
  });
});

test('what is wrong is said at its field', async () => {
  const { spec, version } = await find('office');
  const wrong = { ...spec, timeZone: 'Europe/Nowhere', weekly: { mon: [{ from: '09:00', to: '09:00' }] } };
  const { status, body } = await helder!.call('PUT', '/calendars/office', { version, spec: wrong });
  expect(status).toBe(422);
  expect((body as { fields: object[] }).fields).toEqual([
    { field: 'spec.timeZone', code: 'unknownZone' },
    { field: 'spec.weekly.mon', code: 'emptyWindow' },
  ]);
});

test('a file goes out, comes back in, and a malformed one names its line', async () => {
  const { status, body, headers } = await tomas!.call('GET', '/calendars/office/calendar.ics');
  expect(status).toBe(200);
  expect(headers.get('Content-Type')).toContain('text/calendar');
  const { spec } = await find('office');
  const read = await helder!.call('POST', '/calendars/office/icalendar', { text: body, spec });
  const brought = (read.body as { spec: Calendar['spec'] }).spec;
  expect(brought.weekly).toEqual(spec.weekly);
  expect(brought.exceptions).toEqual([...spec.exceptions].sort((a, b) => (a.date < b.date ? -1 : 1)));
  const broken = await helder!.call('POST', '/calendars/office/icalendar', {
    text: 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nhello\r\nEND:VCALENDAR\r\n',
    spec,
  });
  expect(broken).toMatchObject({
    status: 422,
    body: { type: '/problems/icalendarNotRead', facts: { line: 3, fault: 'notALine' } },
  });
});

test('public holidays are offered by country and year', async () => {
  const places = await tomas!.call('GET', '/holidays/places');
  expect(places.status).toBe(200);
  expect((places.body as { id: string }[]).map(({ id }) => id)).toContain('PT');
  const { body } = await tomas!.call('GET', '/holidays?country=PT&year=2026&years=2');
  expect(body).toContainEqual({ date: '2027-04-25', name: 'Liberty Day' });
  expect((await tomas!.call('GET', '/holidays?country=PT&year=99999')).status).toBe(422);
});
