import type { Ask } from '../../contract/approvals';
import type { AnswerOf } from '../../contract/endpoint';
import type { api } from '../../contract';
import type { Notification } from '../../contract/notifications';
import type { Ticket } from '../../contract/tickets';
import type { Needs, StepApproverRef } from '../../core/approvals';
import { forgetCatalogue } from '../catalogue/services';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** Someone leaves while others wait for them: what they were to decide and to do goes to whoever comes next. */
let app: TestListo;
let [helder, tomas, helge, bia, ines, rui]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('leaving');
  const names = ['helder', 'tomas', 'helge', 'bia', 'ines', 'rui'];
  [helder, tomas, helge, bia, ines, rui] = await Promise.all(names.map(app.as));
});
afterAll(() => app.end());

type Leaving = AnswerOf<typeof api.people.leaving>;
const hangsOn = async (id: string): Promise<Leaving> =>
  (await helder!.call('GET', `/people/${id}/leaving`)).body as Leaving;
async function leaves(id: string): Promise<void> {
  const { version } = await hangsOn(id);
  expect((await helder!.call('POST', `/people/${id}/leaving`, { version })).status).toBe(200);
}
async function isBack(id: string): Promise<void> {
  const { version } = await hangsOn(id);
  expect((await helder!.call('POST', `/people/${id}/back`, { version })).status).toBe(200);
}

/** The scanner is agreed by these from now on. */
async function agreedBy(refs: StepApproverRef[], needs: Needs = { kind: 'any' }): Promise<void> {
  const step = { name: { en: 'Agreed', pt: 'Acordo' }, refs, needs, declineBy: 'any' as const };
  await app.listo.db.tables.services.update({ id: 'gate-scanner' }, { approvals: [step] });
  forgetCatalogue(app.listo);
}
async function askForScanner(by = tomas!): Promise<number> {
  const answers = { site: 'Port Alder', sort: 'hand', count: 1 };
  const body = { serviceId: 'gate-scanner', title: 'Scanner', answers };
  return ((await by.call('POST', '/tickets', body)).body as { number: number }).number;
}
const read = async (number: number, by = tomas!): Promise<Ticket> =>
  (await by.call('GET', `/tickets/${number}`)).body as Ticket;
const askedOn = async (number: number) =>
  (await read(number)).approvals.flatMap(({ asks }) =>
    asks.map(({ voter, asked, reason }) => [voter.id, asked.id, reason]),
  );
const becomes = (number: number, wanted: string[][]) =>
  until(
    () => askedOn(number),
    (asked) => JSON.stringify(asked) === JSON.stringify(wanted),
  );
async function decide(by: Person, number: number, decision: 'approve' | 'decline'): Promise<number> {
  const asks = (await by.call('GET', '/my/asks')).body as Ask[];
  const ask = asks.find((each) => each.number === number);
  if (!ask) return 404;
  return (await by.call('POST', `/asks/${ask.id}/decision`, { decision, words: 'No.' })).status;
}
const typesOn = async (number: number, by = bia!) => {
  const page = (await by.call('GET', `/tickets/${number}`)).body as Ticket;
  return page.entries.map(({ type, data }) => [type, data.former ?? data.person]);
};

test('a manager who leaves is passed over for the next one up, who decides and is told', async () => {
  await agreedBy([{ manager: 'ofRequester' }]);
  const number = await askForScanner();
  const [[manager]] = (await askedOn(number)) as [string[]];
  const { managerId } = (await app.listo.db.tables.people.findOne({ id: manager! }))!;
  expect((await hangsOn(manager!)).waiting.asks).toBe(1);
  const before = await app.as(manager!);
  await leaves(manager!);
  expect((await before.call('GET', '/my/asks')).status).toBe(401);
  await expect(app.as(manager!)).rejects.toThrow();
  await becomes(number, [[managerId!, managerId!, 'oneUp']]);
  const { name } = (await app.listo.db.tables.people.findOne({ id: manager! }))!;
  expect(await typesOn(number)).toContainEqual(['askLeft', name]);
  const next = await app.as(managerId!);
  await until(
    async () => (await next.call('GET', '/notifications')).body as { notifications: Notification[] },
    ({ notifications }) => notifications.some((each) => each.number === number && each.event === 'asked'),
  );
  expect(await decide(next, number, 'approve')).toBe(200);
  await until(
    () => read(number),
    ({ state }) => state === 'received',
  );
  // What has been decided is not asked anew when they are here again.
  await isBack(manager!);
  expect(await decide(await app.as(manager!), number, 'approve')).toBe(404);
});

test('with nobody above, in a ring or at the top of the line, the fallback takes it and the thread says so', async () => {
  const { tables } = app.listo.db;
  await agreedBy([{ person: 'ines' }]);
  const number = await askForScanner();
  const { managerId } = (await tables.people.findOne({ id: 'ines' }))!;
  await tables.people.update({ id: 'ines' }, { managerId: 'ines' });
  await leaves('ines');
  await becomes(number, [['helge', 'helge', 'fallback']]);
  // One that is raised while they are gone is asked of the fallback at once.
  const later = await askForScanner();
  expect(await askedOn(later)).toEqual([['helge', 'helge', 'fallback']]);
  const asked = (await read(later)).entries.find(({ type }) => type === 'asked');
  expect(asked!.data).toMatchObject({ reason: 'fallback' });
  expect(await decide(helge!, number, 'approve')).toBe(200);
  await isBack('ines');
  await tables.people.update({ id: 'ines' }, { managerId });
});

test('a team of which all have left is one without members: the fallback takes it', async () => {
  const { tables } = app.listo.db;
  await tables.teams.insert({
    ...(await tables.teams.findOne({ id: 'onboard' }))!,
    ...{ id: 'empty', name: { en: 'Empty', pt: 'Vazia' }, mailbox: null },
  });
  await agreedBy([{ team: 'empty' }]);
  expect(await askedOn(await askForScanner())).toEqual([['helge', 'helge', 'fallback']]);
});

test('of a team the others decide without the one who left; with enough said already it is decided', async () => {
  await agreedBy([{ person: 'bia' }, { person: 'rui' }], { kind: 'all' });
  const named = await askForScanner();
  expect(await decide(bia!, named, 'approve')).toBe(200);
  const { tables } = app.listo.db;
  const { managerId } = (await tables.people.findOne({ id: 'rui' }))!;
  // Whoever comes next has said yes already: the place goes, and all have agreed.
  await tables.people.update({ id: 'rui' }, { managerId: 'bia' });
  await tables.teams.insert({
    ...(await tables.teams.findOne({ id: 'onboard' }))!,
    ...{ id: 'pair', name: { en: 'Pair', pt: 'Par' }, mailbox: null },
  });
  const member = { teamId: 'pair', role: 'agent', groupId: null, capacity: null, lastGivenAt: null } as const;
  await tables.members.insert({ ...member, personId: 'rui' });
  await tables.members.insert({ ...member, personId: 'ines' });
  await agreedBy([{ team: 'pair' }]);
  const ofTeam = await askForScanner();
  const joined = (await askedOn(ofTeam)).map(([voter]) => voter).sort();
  expect(joined).toEqual(['ines', 'rui']);

  await leaves('rui');
  await becomes(ofTeam, [['ines', 'ines', 'team']]);
  const agreed = await until(
    () => read(named),
    ({ state }) => state === 'received',
  );
  expect(agreed.approvals[0]).toMatchObject({ outcome: 'approved' });
  expect(await decide(await app.as('ines'), ofTeam, 'decline')).toBe(200);
  await isBack('rui');
  await tables.people.update({ id: 'rui' }, { managerId });
});

test('their tickets and their steps come back to the teams, once', async () => {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'stopsWork' };
  const body = { serviceId: 'kiosk', title: 'Kiosk 3 frozen', answers };
  const { number } = (await tomas!.call('POST', '/tickets', body)).body as { number: number };
  rui = await app.as('rui');
  const ticket = await read(number, rui);
  const { tables } = app.listo.db;
  await tables.members.insertAll(
    [
      {
        teamId: ticket.team.id,
        personId: 'rui',
        role: 'agent',
        groupId: null,
        capacity: null,
        lastGivenAt: null,
      },
    ],
    undefined,
    { updates: ['role'] },
  );
  rui = await app.as('rui');
  const taken = await rui.call('POST', `/tickets/${number}/moves`, {
    ...{ name: 'take', by: 'agent', version: (await read(number, rui)).version, input: {} },
  });
  expect(taken.status).toBe(200);
  const before = await hangsOn('rui');
  expect(before.waiting.tickets).toBeGreaterThan(0);
  await leaves('rui');
  const back = await until(
    () => read(number, bia!),
    ({ assignee }) => assignee === null,
  );
  expect(back.state).toBe('received');
  const types = (await typesOn(number)).map(([type]) => type);
  expect(types.filter((type) => type === 'leftBehind')).toEqual(['leftBehind']);
  expect((await hangsOn('rui')).waiting).toMatchObject({ asks: 0, tickets: 0, steps: 0 });
  const mine = (await bia!.call('GET', '/teams')).body as { members: { id: string }[] }[];
  expect(mine.flatMap(({ members }) => members.map(({ id }) => id))).not.toContain('rui');
  await isBack('rui');
});

test('an absence that begins while someone is asked brings the ask to who decides meanwhile', async () => {
  await agreedBy([{ person: 'ines' }]);
  const number = await askForScanner();
  const now = app.clock.now();
  const away = { fromAt: now - 1, toAt: now + 86_400_000, delegateId: 'helge' };
  ines = await app.as('ines');
  expect((await ines.call('POST', '/my/absences', away)).status).toBe(200);
  await becomes(number, [['ines', 'helge', 'named']]);
  const [absence] = (await ines.call('GET', '/my/absences')).body as { id: string }[];
  await ines.call('DELETE', `/my/absences/${absence!.id}`);
});

test('only an administrator says so, of others, and of what they have seen', async () => {
  expect((await bia!.call('GET', '/people/ines/leaving')).status).toBe(403);
  expect((await bia!.call('POST', '/people/ines/leaving', { version: 1 })).status).toBe(403);
  expect((await bia!.call('GET', '/leavers')).status).toBe(403);
  expect((await helder!.call('POST', '/people/nobody/leaving', { version: 1 })).status).toBe(404);
  const { version } = await hangsOn('helder');
  expect((await helder!.call('POST', '/people/helder/leaving', { version })).status).toBe(422);
  const ofInes = await hangsOn('ines');
  const stale = { version: ofInes.version - 1 };
  expect((await helder!.call('POST', '/people/ines/leaving', stale)).status).toBe(409);
  await leaves('ines');
  const left = (await helder!.call('GET', '/leavers')).body as { id: string }[];
  expect(left.map(({ id }) => id)).toEqual(['ines']);
  await isBack('ines');
  expect((await helder!.call('GET', '/leavers')).body).toEqual([]);
});

test('where services name someone stands with them', async () => {
  await agreedBy([{ person: 'ines' }]);
  const { services } = await hangsOn('ines');
  expect(services.map(({ id }) => id)).toContain('gate-scanner');
});
