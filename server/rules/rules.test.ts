import type { RuleBody, RuleOnTicket, RuleTrial, RuleView } from '../../contract/rules';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';
import { MOST_FAILURES } from './fire';

/** What rules do by themselves as soon as something happens, with nobody at the keyboard. */
let app: TestListo;
let [helder, tomas, bia, rui]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('rules');
  [helder, tomas, bia, rui] = await Promise.all(['helder', 'tomas', 'bia', 'rui'].map(app.as));
});
afterAll(() => app.end());
beforeEach(async () => {
  for (const { id } of await app.listo.db.tables.rules.find({})) await helder!.call('DELETE', `/rules/${id}`);
});

const both = (text: string) => ({ en: text, pt: text });
const rule = (given: Partial<RuleBody>): RuleBody => ({
  ...{ name: both('Cards at the gates'), teamId: null, trigger: { on: 'received' }, provided: { all: [] } },
  ...{ effects: [{ do: 'note', words: both('Seen.') }], isLast: false },
  ...given,
});
const bodyOf = <T>(answer: { body: T }): T => answer.body;
const list = async (): Promise<RuleView[]> => bodyOf(await helder!.call('GET', '/rules'));

async function make(given: Partial<RuleBody>, isOn = true): Promise<string> {
  const made = await helder!.call('POST', '/rules', rule(given));
  expect(made.status).toBe(200);
  const { id } = bodyOf<{ id: string }>(made);
  if (isOn) await helder!.call('PUT', `/rules/${id}/state`, { version: 1, isOn });
  return id;
}

type Seen = {
  version: number;
  state: string;
  heldFor: string | null;
  priority: string;
  team: { id: string };
  entries: {
    id: number;
    type: string;
    actor: object | null;
    rule: { id: string } | null;
    data: { words?: { en: string }; code?: string; rule?: object };
  }[];
};
const read = async (number: number, as = bia!): Promise<Seen> =>
  bodyOf(await as.call('GET', `/tickets/${number}`));

/** Something at a gate is reported to the terminals' team. */
async function report(what = 'All red', title = 'Gates'): Promise<number> {
  const answers = { site: 'Port Alder', what, impact: 'person', urgency: 'slowsWork' };
  const sent = await tomas!.call('POST', '/tickets', { serviceId: 'gate-broken', title, answers });
  return bodyOf<{ number: number }>(sent).number;
}
/** Waits until the rules have gone through all that has happened so far. */
async function settled(): Promise<void> {
  const { tables, select } = app.listo.db;
  await until(
    async () => {
      const [last] = await select<{ at: number; open: number }>(
        'SELECT COALESCE(MAX(position), 0) AS at, SUM(position IS NULL) AS open FROM journal',
        {},
      );
      const cursor = await tables.consumers.findOne({ name: 'rules' });
      return { isDone: last!.open === 0 && cursor!.position >= last!.at };
    },
    ({ isDone }) => isDone,
  );
}
const typesBy = (seen: Seen, ruleId: string): string[] =>
  seen.entries.filter((entry) => entry.rule?.id === ruleId).map(({ type }) => type);

test('a word in what was written gives it to another team, makes it urgent and says so; nobody is said to have done it', async () => {
  const id = await make({
    provided: { all: [{ field: 'said', op: 'hasAny', value: ['season pass'] }] },
    effects: [
      { do: 'set', field: 'priority', to: 'P1' },
      { do: 'give', teamId: 'network' },
      { do: 'note', words: both('A pass at {place}: {title}') },
      { do: 'answer', words: both('We look at {number} at once, {first}.') },
    ],
  });
  const other = await report('All red');
  const number = await report('It takes no seasonal PASSES', 'No passes');
  const seen = await until(
    () => read(number),
    // A page's facts are read a moment before its history: the rule may have fired between the two.
    (ticket) => typesBy(ticket, id).length >= 4 && ticket.team.id === 'network',
  );
  expect(seen).toMatchObject({ priority: 'P1', team: { id: 'network' } });
  expect(typesBy(seen, id).sort()).toEqual(['changed', 'givenOn', 'ruleNoted', 'ruleSaid']);
  expect(seen.entries.filter((entry) => entry.rule !== null).every(({ actor }) => actor === null)).toBe(true);
  const theirs = await read(number, tomas!);
  const said = theirs.entries.find(({ type }) => type === 'ruleSaid')!;
  expect(said.data.words?.en).toBe(`We look at ${number} at once, Tomás.`);
  // How a team calls its rules is not for those who ask.
  expect([said.rule, said.data.rule]).toEqual([null, undefined]);
  expect(theirs.entries.some(({ type }) => type === 'ruleNoted')).toBe(false);
  await settled();
  expect((await read(other)).entries.some((entry) => entry.rule !== null)).toBe(false);
});

test('rules are asked in their order, each of the ticket as those before it leave it; one may be the last', async () => {
  const first = await make({ effects: [{ do: 'set', field: 'priority', to: 'P2' }] });
  const second = await make({
    provided: { field: 'priority', op: 'is', value: 'P2' },
    effects: [{ do: 'note', words: both('Second') }],
    isLast: true,
  });
  const third = await make({ effects: [{ do: 'note', words: both('Third') }] });
  const number = await report();
  await until(
    () => read(number),
    (seen) => typesBy(seen, second).length > 0,
  );
  await settled();
  expect(typesBy(await read(number), third)).toEqual([]);
  await helder!.call('PUT', '/rules-order', { ids: [second, third, first] });
  expect((await list()).map(({ id }) => id)).toEqual([second, third, first]);
  const again = await report();
  await until(
    () => read(again),
    (seen) => typesBy(seen, first).length > 0,
  );
  const seen = await read(again);
  expect([typesBy(seen, second), typesBy(seen, third)]).toEqual([[], ['ruleNoted']]);
});

test('what a rule writes is heard by others and never goes round in a ring', async () => {
  const up = await make({
    trigger: { on: 'fieldChanged', field: 'priority', to: 'P2' },
    effects: [{ do: 'set', field: 'priority', to: 'P3' }],
  });
  const down = await make({
    trigger: { on: 'fieldChanged', field: 'priority', to: 'P3' },
    effects: [{ do: 'set', field: 'priority', to: 'P2' }],
  });
  expect((await list()).find(({ id }) => id === up)?.rings).toEqual([[up, down]]);
  const number = await report();
  const { version } = await read(number);
  const said = { version, priority: 'P2', priorityReason: 'It is worse' };
  expect((await rui!.call('PATCH', `/tickets/${number}`, said)).status).toBe(200);
  await until(
    () => read(number),
    (seen) => typesBy(seen, down).length > 0,
  );
  await settled();
  const seen = await read(number);
  expect([typesBy(seen, up), typesBy(seen, down), seen.priority]).toEqual([['changed'], ['changed'], 'P2']);
});

test('what follows by itself from what a rule did belongs to its chain: giving on does not go round', async () => {
  await app.listo.db.run(`UPDATE teams SET routing = :way WHERE id = 'network'`, {
    way: JSON.stringify({
      way: 'inTurn',
      weights: { incident: 1, request: 1 },
      needs: [],
      goesOnAfter: null,
      goesOnTo: null,
    }),
  });
  const id = await make({ trigger: { on: 'givenOn' }, effects: [{ do: 'give', teamId: 'network' }] });
  const number = await report();
  const { version } = await read(number);
  const input = { teamId: 'desk' };
  await rui!.call('POST', `/tickets/${number}/moves`, { name: 'give', by: 'agent', version, input });
  await until(
    () => read(number),
    (seen) => typesBy(seen, id).length > 0,
  );
  await settled();
  expect(typesBy(await read(number), id)).toEqual(['givenOn']);
  await app.listo.db.run(`UPDATE teams SET routing = NULL WHERE id = 'network'`);
});

test('what still has to be agreed has not come yet', async () => {
  const id = await make({});
  const body = {
    ...{ serviceId: 'bridge-tablet', title: 'A tablet' },
    answers: { vessel: 'Marren', sort: 'new' },
  };
  const sending = await tomas!.call('POST', '/tickets', body);
  const { number } = bodyOf<{ number: number }>(sending);
  await settled();
  const sent = (await app.listo.db.tables.journal.findOne({ ticketNumber: number, type: 'sent' }))!;
  expect(sent.data).toMatchObject({ awaitsApproval: true });
  expect(typesBy(await read(number), id)).toEqual([]);
});

test('a rule fires once for an entry, however often its consumer goes over it', async () => {
  const id = await make({});
  const number = await report();
  await until(
    () => read(number),
    (seen) => typesBy(seen, id).length > 0,
  );
  const sent = (await app.listo.db.tables.journal.findOne({ ticketNumber: number, type: 'sent' }))!;
  await app.listo.db.run("UPDATE consumers SET position = :at WHERE name = 'rules'", {
    at: sent.position! - 1,
  });
  app.listo.wake();
  await settled();
  expect(typesBy(await read(number), id)).toEqual(['ruleNoted']);
  expect((await app.listo.db.tables.ruleRuns.find({ ruleId: id })).length).toBe(1);
});

test('what cannot be done is said on the ticket and leaves nothing half done; the rest is done', async () => {
  const id = await make({
    effects: [
      { do: 'set', field: 'progressId', to: 'gone' },
      { do: 'note', words: both('All the same') },
    ],
  });
  const number = await report();
  const seen = await until(
    () => read(number),
    (ticket) => typesBy(ticket, id).length >= 2,
  );
  expect(typesBy(seen, id)).toEqual(['ruleFailed', 'ruleNoted']);
  expect(seen.entries.find(({ type }) => type === 'ruleFailed')?.data.code).toBe('fieldsNotValid');
  expect((await list())[0]).toMatchObject({ failures: 1, failedWith: 'fieldsNotValid' });
});

test('one that fails again and again is switched off, and its owner hears of it', async () => {
  const id = await make({ effects: [{ do: 'set', field: 'progressId', to: 'gone' }] });
  await app.listo.db.tables.rules.update({ id }, { failures: MOST_FAILURES - 1, changedAt: 1 });
  const number = await report();
  await until(list, ([only]) => only?.isOn === false);
  const told = await until(
    () =>
      app.listo.db.tables.notifications.find({ personId: 'helder', ticketNumber: number, event: 'ruleTold' }),
    ({ length }) => length > 0,
  );
  expect(told[0]?.words?.en).toContain('switched off');
});

test('silence: once, so long after it was last asked for, unless they write back', async () => {
  const id = await make({
    trigger: { on: 'silence', since: 'held', unless: ['wroteBack', 'resumed'], after: 'P3D', calendar: null },
    provided: { field: 'state', op: 'is', value: 'held' },
    effects: [{ do: 'end', as: 'done', words: both('Nobody wrote back.') }],
  });
  const hold = async (): Promise<number> => {
    const number = await report();
    const { version } = await read(number);
    const input = { heldFor: 'requester', message: 'Which gate?' };
    await rui!.call('POST', `/tickets/${number}/moves`, { name: 'hold', by: 'agent', version, input });
    await until(
      () => app.listo.db.tables.timers.findOne({ ticketNumber: number, kind: 'ruleSilent', ref: id }),
      (timer) => timer !== null,
    );
    return number;
  };
  const [silent, answered] = [await hold(), await hold()];
  app.clock.pass(86_400_000);
  await tomas!.call('POST', `/tickets/${answered}/messages`, {
    ...{ text: 'The second', format: 'plain', readBy: 'requester', links: [], fileIds: [] },
  });
  await settled();
  expect((await read(silent)).state).toBe('held');
  app.clock.pass(2 * 86_400_000 + 60_000);
  await until(
    () => read(silent),
    ({ state }) => state === 'done',
  );
  await until(
    () => app.listo.db.tables.timers.findOne({ ticketNumber: answered, kind: 'ruleSilent', ref: id }),
    (timer) => timer === null,
  );
  expect((await read(answered)).state).not.toBe('done');
  expect((await app.listo.db.tables.ruleRuns.find({ ruleId: id })).map((run) => run.ticketNumber)).toEqual([
    silent,
  ]);
});

test('by time: each open ticket that fits is asked at the instant, and again at the next', async () => {
  const number = await report('Every morning', 'Asked every morning');
  await settled();
  const id = await make({
    trigger: { on: 'time', every: 'FREQ=DAILY;BYHOUR=8;BYMINUTE=0', zone: 'Europe/Lisbon' },
    provided: { field: 'title', op: 'is', value: 'Asked every morning' },
    effects: [{ do: 'note', words: both('Still open.') }],
  });
  const timer = async () => (await app.listo.db.tables.timers.find({ kind: 'ruleTime' }))[0];
  const first = (await timer())!.at;
  expect(new Date(first).toISOString()).toMatch(/T08:00:00/);
  app.clock.set(first + 1_000);
  await until(
    () => read(number),
    (seen) => typesBy(seen, id).length === 1,
  );
  const next = await until(timer, (armed) => (armed?.at ?? 0) > first);
  expect(next!.at - first).toBe(86_400_000);
  await helder!.call('PUT', `/rules/${id}/state`, { version: 2, isOn: false });
  expect(await timer()).toBeUndefined();
});

test('a ticket in confidence is for the rules of its own team alone', async () => {
  const all = await make({});
  const own = await make({ teamId: 'people' });
  const answers = { about: 'work', language: 'en' };
  const sent = await tomas!.call('POST', '/tickets', {
    serviceId: 'letter',
    title: 'In confidence',
    answers,
  });
  const number = bodyOf<{ number?: number }>(sent).number;
  expect(number).toBeDefined();
  await until(
    () => app.listo.db.tables.ruleRuns.find({ ticketNumber: number! }),
    ({ length }) => length > 0,
  );
  await settled();
  const runs = await app.listo.db.tables.ruleRuns.find({ ticketNumber: number! });
  expect(runs.map(({ ruleId }) => ruleId)).toEqual([own]);
  expect(all).not.toBe(own);
});

test('a trial says on which tickets it would have fired, and what that would have set off; it writes nothing', async () => {
  const number = await report('A trial of turnstiles');
  await report('Nothing of the kind');
  await settled();
  const follows = await make({
    trigger: { on: 'fieldChanged', field: 'priority', to: 'P1' },
    effects: [{ do: 'note', words: both('Urgent') }],
  });
  const tried = rule({
    provided: { field: 'said', op: 'hasAny', value: ['turnstile'] },
    effects: [{ do: 'set', field: 'priority', to: 'P1' }],
  });
  const before = await app.listo.db.tables.journal.find({ ticketNumber: number });
  const trial = bodyOf<RuleTrial>(
    await helder!.call('POST', '/rules/trials', { id: null, rule: tried, days: 30 }),
  );
  expect(trial.fired.map((each) => each.number)).toEqual([number]);
  expect(trial).toMatchObject({ count: 1, tickets: 1, isCut: false, fewer: [] });
  expect(trial.more.map(({ id, count }) => [id, count])).toEqual([[follows, 1]]);
  expect(trial.before.map(({ id }) => id)).toEqual([follows]);
  expect((await app.listo.db.tables.journal.find({ ticketNumber: number })).length).toBe(before.length);
  // Switched on, it does just that on the next of its kind.
  const id = await make(tried);
  const next = await report('Another trial of turnstiles');
  await until(
    () => read(next),
    (seen) => typesBy(seen, id).length === 1,
  );
});

test('what another order would have made otherwise is said before it is kept, and it is not kept by that', async () => {
  const first = await make({
    name: both('First'),
    effects: [{ do: 'set', field: 'priority', to: 'P1' }],
    isLast: true,
  });
  const second = await make({ name: both('Second') });
  const number = await report();
  await until(
    () => read(number),
    (seen) => typesBy(seen, first).length > 0,
  );
  await settled();
  const order = async (ids: string[]) =>
    bodyOf<{ otherwise: number; entries: number; more: { id: string }[]; fewer: { id: string }[] }>(
      await helder!.call('POST', '/rules-order/effects', { ids }),
    );
  const effect = await order([second, first]);
  expect(effect.otherwise).toBeGreaterThan(0);
  expect(effect.entries).toBeGreaterThanOrEqual(effect.otherwise);
  expect(effect.more.map(({ id }) => id)).toEqual([second]);
  expect(effect.fewer).toEqual([]);
  expect((await order([first, second])).otherwise).toBe(0);
  expect((await list()).map(({ id }) => id)).toEqual([first, second]);
  expect((await tomas!.call('POST', '/rules-order/effects', { ids: [] })).status).toBe(403);
});

test('on a ticket it is said why a rule fired, or what kept it from firing', async () => {
  const fired = await make({ name: both('Fires') });
  const not = await make({
    name: both('Does not'),
    provided: {
      all: [
        { field: 'kind', op: 'is', value: 'incident' },
        { field: 'priority', op: 'is', value: 'P1' },
      ],
    },
  });
  const number = await report();
  await until(
    () => read(number),
    (seen) => typesBy(seen, fired).length > 0,
  );
  const explained = bodyOf<RuleOnTicket[]>(await bia!.call('GET', `/tickets/${number}/rules`));
  const one = (id: string) => explained.find(({ rule: { id: ruleId } }) => ruleId === id)!;
  expect(one(fired).fired[0]?.did).toEqual([{ do: 'note', problem: null }]);
  expect(one(not).asked[0]?.why).toMatchObject({
    ...{ fired: false, because: 'condition' },
    unmet: { part: { field: 'priority' } },
  });
  expect((await tomas!.call('GET', `/tickets/${number}/rules`)).status).not.toBe(200);
});

test('what a rule changed is put back by whoever works on the ticket, like a colleague’s change', async () => {
  const id = await make({ effects: [{ do: 'set', field: 'priority', to: 'P1' }] });
  const number = await report();
  const seen = await until(
    () => read(number),
    (ticket) => typesBy(ticket, id).length > 0,
  );
  const entry = seen.entries.find((each) => each.rule?.id === id)!;
  expect((await tomas!.call('POST', `/tickets/${number}/entries/${entry.id}/undone`, {})).status).not.toBe(
    200,
  );
  expect((await rui!.call('POST', `/tickets/${number}/entries/${entry.id}/undone`, {})).status).toBe(200);
  expect((await read(number)).priority).not.toBe('P1');
  const sent = seen.entries.find(({ type }) => type === 'sent')!;
  expect((await rui!.call('POST', `/tickets/${number}/entries/${sent.id}/undone`, {})).status).toBe(404);
});
