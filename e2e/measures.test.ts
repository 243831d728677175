import { WEEKDAYS } from '../core/calendar';
import type { Viewer } from '../core/rights';
import { tally } from '../core/compliance';
import { standingOf, type Standing } from '../core/targets';
import { readClock } from '../core/targets';
import { toHistory } from '../core/tickets';
import { readCompliance } from '../server/compliance/read';
import { replay } from '../server/replays/replay';
import type { JournalRow } from '../server/journal/model';
import { until } from '../server/testing/harness';
import { click, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Targets in the hands of those who answer for them, on the demo's half year and in the real interface. */
/** One who may see every ticket there is. */
let everyone: Viewer & { language: 'en' | 'pt' };
const HALF_YEAR = { from: Date.parse('2026-05-01'), to: Date.parse('2026-12-01') };
const { app, browser } = demoSuite('measures');
beforeAll(async () => {
  const teams = await app.listo.db.tables.teams.find({});
  const roles = teams.map(({ id }) => ({ teamId: id, role: 'lead' as const }));
  everyone = {
    language: 'en' as const,
    id: 'helder',
    isAdministrator: true,
    mayAskForOthers: false,
    teams: roles,
  };
});

test('a replay with the definitions as they are changes nothing, on every ticket of the demo', async () => {
  const targets = await app.listo.db.tables.targets.find({});
  const asked = {
    ...HALF_YEAR,
    ...{ calendars: {}, moves: [] },
    targets: targets.map(({ id, definition }) => ({ id, definition })),
  };
  const steps: number[] = [];
  const result = await replay(app.listo, everyone, {
    asked,
    onProgress: async (done) => {
      steps.push(done);
      return Promise.resolve(true);
    },
  });
  const [row] = await app.listo.db.select<{ count: number }>('SELECT COUNT(*) AS count FROM tickets');
  expect(result!.tickets).toBe(row!.count);
  expect(row!.count).toBeGreaterThan(3_000);
  expect(result).toMatchObject({ changed: 0, flips: [] });
  expect(result!.all.after).toEqual(result!.all.before);
  expect(steps.at(-1)).toBe(row!.count);
  // A stricter one does change sides, and all that it lists did.
  const first = targets.find(({ id }) => id === 'first-answer')!;
  const stricter = { ...first.definition, limits: [{ duration: 'PT5M' }] };
  const other = await replay(app.listo, everyone, {
    asked: { ...asked, targets: [{ id: first.id, definition: stricter }] },
    onProgress: () => Promise.resolve(true),
  });
  expect(other!.changed).toBeGreaterThan(100);
  expect(other!.all.after.missed - other!.all.before.missed).toBeGreaterThan(0);
  // The desk round the clock: more of what goes by its calendar would have been late, and each promise has its own figures.
  const allDay = [{ from: '00:00', to: '24:00' }];
  const spec = (await app.listo.db.tables.calendars.findOne({ id: 'desk' }))!.spec;
  const weekly = Object.fromEntries(WEEKDAYS.map((day) => [day, allDay]));
  const open = { ...asked, targets: [], calendars: { desk: { ...spec, weekly, exceptions: [] } } };
  const round = await replay(app.listo, everyone, { asked: open, onProgress: () => Promise.resolve(true) });
  expect(round!.all.after.missed).toBeGreaterThan(round!.all.before.missed);
  expect(round!.targets.length).toBeGreaterThan(1);
  const ofAll = round!.targets.reduce((sum, { after }) => sum + after.missed, 0);
  expect(ofAll).toBe(round!.all.after.missed);
  // Another team in the place of one: only what that team had changes.
  const moves = [{ serviceId: null, fromTeamId: 'onboard', toTeamId: 'desk' }];
  const moved = await replay(app.listo, everyone, {
    asked: { ...asked, targets: [], moves },
    onProgress: () => Promise.resolve(true),
  });
  expect(moved!.all.before).toEqual(result!.all.before);
  expect(moved!.changed).toBeGreaterThan(0);
  const rest = moved!.groups.team.filter(({ key }) => key === 'people');
  expect(rest.map(({ after }) => after)).toEqual(rest.map(({ before }) => before));
  // Told to stop, it stops.
  expect(await replay(app.listo, everyone, { asked, onProgress: () => Promise.resolve(false) })).toBeNull();
});

test('the figures are those of a recount that reads the journal alone', async () => {
  const { listo } = app;
  // What the demo ends with is still being handled as it starts.
  await until(
    () =>
      listo.db.select<{ behind: number }>(
        "SELECT (SELECT MAX(id) FROM journal) - position AS behind FROM consumers WHERE name = 'clocks'",
        {},
      ),
    ([row]) => row?.behind === 0,
  );
  const now = app.now();
  const calendars = await listo.calendars.getAll();
  const entries = await listo.db.select<Pick<JournalRow, 'ticketNumber' | 'work' | 'at' | 'changes'>>(
    "SELECT ticketNumber, work, at, changes FROM journal WHERE ticketNumber IS NOT NULL AND changes <> '{}' ORDER BY id",
  );
  const works = new Map<string, typeof entries>();
  for (const entry of entries) {
    const key = `${entry.ticketNumber} ${entry.work}`;
    const own = works.get(key);
    if (own) own.push(entry);
    else works.set(key, [entry]);
  }
  const targets = await listo.db.tables.targets.find({});
  for (const { id, definition } of targets) {
    const standings: (Standing | null)[] = [];
    for (const own of works.values()) {
      const reading = readClock(definition, calendars, toHistory(own, own[0]!.work), now);
      const { startedAt } = reading;
      if (startedAt !== null && startedAt >= HALF_YEAR.from && startedAt < HALF_YEAR.to)
        standings.push(standingOf(reading, now));
    }
    const { all, groups } = await readCompliance(listo, everyone, { targetId: id, ...HALF_YEAR });
    expect([id, all]).toEqual([id, tally(standings)]);
    for (const rows of Object.values(groups))
      expect(rows.reduce((sum, row) => sum + row.met + row.missed + row.running, 0)).toBe(
        all.met + all.missed + all.running,
      );
  }
  // Teams and services are called as the reader calls them.
  const period = { targetId: targets[0]!.id, ...HALF_YEAR };
  const { groups } = await readCompliance(listo, { ...everyone, language: 'pt' }, period);
  expect(groups.team.map(({ name }) => name)).toContain('Sistemas de bordo');
});

test('a lead opens a figure, and the tickets behind it', async () => {
  const rui = await browser.open('rui', '/measures/compliance?target=resolution');
  await see(rui, 'Where the time went');
  expect(await listBarriersInBoth(rui)).toEqual([]);
  await rui.locator('::-p-text(late)').click();
  await see(rui, 'Tickets behind it: late');
  const { status, type: kind } = await rui.evaluate(async () => {
    const href = document.querySelector<HTMLAnchorElement>('a[download]')!.href;
    const answer = await fetch(href);
    return { status: answer.status, type: answer.headers.get('Content-Type') };
  });
  expect([status, kind]).toEqual([200, 'text/csv; charset=utf-8']);
});

test('an administrator changes a target beside a real ticket, sees what it moves, and takes it back', async () => {
  const helder = await browser.open('helder', '/workshop/promises/first-answer');
  await see(helder, 'A real ticket under it');
  const marta = await browser.open('marta', '/workshop/promises/first-answer');
  await see(marta, 'A real ticket under it');
  const [row] = await app.listo.db.select<{ number: number }>(
    "SELECT number FROM tickets WHERE teamId = 'desk' AND state = 'closed' ORDER BY number DESC LIMIT 1",
  );
  await type(marta, 'A ticket, by its number or words', String(row!.number), 'textbox');
  await click(marta, 'Show');
  await see(marta, /It would have been (in time|late|called off)/);
  expect(await listBarriersInBoth(marta)).toEqual([]);
  // One that may not be seen is not shown.
  const [secret] = await app.listo.db.select<{ number: number }>(
    'SELECT number FROM tickets WHERE isConfidential LIMIT 1',
  );
  await type(marta, 'A ticket, by its number or words', String(secret!.number), 'textbox');
  await click(marta, 'Show');
  await see(marta, 'This did not work');
  await type(helder, 'P1', '3 h');
  await see(helder, 'Something more urgent has more time');
  await type(helder, 'P1', '5 min');
  await click(helder, 'What would it move?');
  await see(helder, 'open tickets');
  await click(helder, 'Save it');
  await see(helder, 'Saved as version 2.');
  await see(helder, 'Version 2');
  await click(helder, 'Undo');
  await see(helder, 'Version 3');
  expect(
    (await app.listo.db.tables.targets.findOne({ id: 'first-answer' }))!.definition.limits[0]!.duration,
  ).toBe('PT15M');
});

test('what if? is looked at with progress, and nothing is changed by it', async () => {
  const rui = await browser.open('rui', '/measures/replay?target=first-answer');
  await see(rui, 'What would have become');
  await rui.locator('::-p-text(one limit for all)').click();
  await type(rui, 'all', '5 min');
  await click(rui, 'Look');
  await see(rui, /change sides/);
  expect(await listBarriersInBoth(rui)).toEqual([]);
  expect((await app.listo.db.tables.targets.findOne({ id: 'first-answer' }))!.definition.limits).toHaveLength(
    4,
  );
});
