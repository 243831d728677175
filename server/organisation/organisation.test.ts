import type { KeptPerson, PersonBody } from '../../contract/organisation';
import { FORGOTTEN_MS, INVITATION_MS } from '../../core/people';
import { KIOSK } from '../testing/chat';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

/** Those who keep the people of an organisation: who is there, who may come in, who works in which team. */
let app: TestListo;
let [helder, tomas, bia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('organisation');
  [helder, tomas, bia] = await Promise.all(['helder', 'tomas', 'bia'].map(app.as));
});
afterAll(() => app.end());

const person = (name: string, given: Partial<PersonBody> = {}): PersonBody => ({
  ...{ name, email: `${name.toLowerCase().replace(/\W/g, '.')}@solvarra.example`, phone: '', title: 'Clerk' },
  ...{ department: 'Stores', siteId: 'alder', place: '', vessel: '', costCentre: '', managerId: null },
  ...{ language: 'en', isAdministrator: false, mayAskForOthers: false, goesFirst: false },
  ...given,
});
const make = (body: PersonBody, more: { teamId?: string | null; isInvited?: boolean } = {}) =>
  helder!.call('POST', '/workshop/people', { person: body, teamId: null, isInvited: false, ...more });
const read = async (id: string): Promise<KeptPerson> =>
  (await helder!.call('GET', `/workshop/people/${id}`)).body as KeptPerson;
const idOf = (answer: { body: unknown }): string => (answer.body as { id: string }).id;
const bodyOf = (kept: KeptPerson): PersonBody =>
  Object.fromEntries(
    Object.keys(person('x')).map((key) => [key, kept[key as keyof PersonBody]]),
  ) as PersonBody;
const codesOf = (answer: { body: unknown }): string[] =>
  (answer.body as { fields: { field: string; code: string }[] }).fields.map(
    ({ field, code }) => `${field} ${code}`,
  );

/** A call of a browser in which nobody is signed in. */
async function nobody(
  method: string,
  path: string,
  body?: object,
): Promise<{ status: number; body: unknown }> {
  const response = await fetch(`${app.url}/api/v1${path}`, {
    ...{ method, headers: { 'Content-Type': 'application/json' } },
    ...(body && { body: JSON.stringify(body) }),
  });
  return { status: response.status, body: await response.json() };
}

type Page = { rows: { id: string; name: string; wayIn: string }[]; after: string | null };
const list = async (query: string): Promise<Page> =>
  (await helder!.call('GET', `/workshop/people?${query}`)).body as Page;

test('only those who keep people see the list and change anyone', async () => {
  for (const who of [tomas!, bia!]) {
    expect((await who.call('GET', '/workshop/people')).status).toBe(403);
    expect((await who.call('GET', '/workshop/people/tomas')).status).toBe(403);
    expect(
      (
        await who.call('POST', '/workshop/people', {
          person: person('No Body'),
          teamId: null,
          isInvited: false,
        })
      ).status,
    ).toBe(403);
    expect((await who.call('POST', '/workshop/people/tomas/invitation', {})).status).toBe(403);
  }
});

test('the path counts what is set up, for those who set up alone', async () => {
  const { tables } = app.listo.db;
  const read = async () => (await helder!.call('GET', '/workshop/setup')).body as Record<string, number>;
  const before = await read();
  expect(before.sites).toBe((await tables.sites.find({})).length);
  expect(before.people).toBe((await tables.people.find({ leftAt: null })).length);
  const leads = (await tables.members.find({})).filter(({ role }) => role !== 'agent');
  const teams = await tables.teams.find({});
  expect(before.teamsWithoutLead).toBe(
    teams.filter(({ id }) => !leads.some(({ teamId }) => teamId === id)).length,
  );
  await make(person('Path Walker'));
  const invited = await make(person('Path Invited'), { isInvited: true });
  const after = await read();
  expect(after.people).toBe(before.people! + 2);
  // An invitation that waits is a way in.
  expect(after.peopleWithoutWayIn).toBe(before.peopleWithoutWayIn! + 1);
  const all = await tables.people.find({ leftAt: null });
  expect(all.some(({ id }) => id === idOf(invited))).toBe(true);
  expect((await tomas!.call('GET', '/workshop/setup')).status).toBe(403);
});

test('the list goes through everyone once, page after page, and narrows', async () => {
  const { listo } = app;
  const all = await listo.db.tables.people.find({ leftAt: null });
  const seen: string[] = [];
  let after: string | null = null;
  do {
    const page: Page = await list(after === null ? '' : `after=${encodeURIComponent(after)}`);
    seen.push(...page.rows.map(({ id }) => id));
    ({ after } = page);
  } while (after !== null);
  expect([...seen].sort()).toEqual(all.map(({ id }) => id).sort());
  const bias = await list('q=bia&role=agent');
  expect(bias.rows.map(({ id }) => id)).toContain('bia');
  expect((await list('q=bia&role=employee')).rows.map(({ id }) => id)).not.toContain('bia');
  expect((await list('role=administrator')).rows.map(({ id }) => id)).toContain('helder');
  const members = await listo.db.tables.members.find({ teamId: 'onboard' });
  expect((await list('teamId=onboard')).rows).toHaveLength(Math.min(50, members.length));
  expect((await helder!.call('GET', '/workshop/people?after=nonsense')).status).toBe(422);
});

test('a person is made in a team, invited by mail, and comes in once with a password of their own', async () => {
  const made = await make(person('Nadia Reis'), { teamId: 'onboard', isInvited: true });
  expect(made.status).toBe(200);
  const id = idOf(made);
  expect(await read(id)).toMatchObject({
    ...{ name: 'Nadia Reis', wayIn: 'invited', teams: [{ teamId: 'onboard', role: 'agent' }] },
    invitation: { byName: expect.stringMatching(/^Helder/) as string },
  });
  const [mail] = await app.listo.db.tables.mailOut.find({ toId: id });
  const token = /welcome\/([\w-]+)/.exec(mail!.text)![1]!;
  expect((await nobody('GET', `/invitations/${token}`)).body).toMatchObject({
    state: 'open',
    name: 'Nadia Reis',
  });
  const weak = await nobody('POST', `/invitations/${token}`, { password: 'nadia.reis.1' });
  expect(codesOf(weak)).toEqual(['password tooSimple']);
  const strong = { password: 'a calm crossing at dusk' };
  const both = await Promise.all([1, 2].map(() => nobody('POST', `/invitations/${token}`, strong)));
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
  expect((await nobody('GET', `/invitations/${token}`)).body).toMatchObject({ state: 'used', name: '' });
  const signedIn = await nobody('POST', '/session', { email: 'nadia.reis@solvarra.example', ...strong });
  expect(signedIn.status).toBe(200);
  const kept = await read(id);
  expect(kept).toMatchObject({ wayIn: 'password', invitation: null });
  expect(kept.history.map(({ type }) => type)).toEqual([
    ...['personArrived', 'personInvited', 'memberSet', 'personMade'],
  ]);
});

test('a later link takes the place of the earlier one, and each ends after seven days', async () => {
  const id = idOf(await make(person('Otto Brand')));
  const links: string[] = [];
  for (let i = 0; i < 2; i++) {
    const { body } = await helder!.call('POST', `/workshop/people/${id}/invitation`, {});
    links.push((body as { link: string }).link.split('/welcome/')[1]!);
  }
  const stateOf = async (token: string) =>
    ((await nobody('GET', `/invitations/${token}`)).body as { state: string }).state;
  expect(await stateOf(links[0]!)).toBe('replaced');
  expect(await stateOf(links[1]!)).toBe('open');
  app.clock.pass(INVITATION_MS);
  expect(await stateOf(links[1]!)).toBe('ended');
  const late = await nobody('POST', `/invitations/${links[1]!}`, {
    password: 'a calm crossing at dusk',
  });
  expect(late.status).toBe(409);
  expect((await nobody('GET', `/invitations/${'x'.repeat(43)}`)).status).toBe(404);
});

test('says all that is wrong at once: a mail that is taken, a ring of managers, a site that is not there', async () => {
  const twice = await make(person('Other', { email: 'TOMAS.VEIGA@solvarra.example', siteId: 'nowhere' }));
  const { email } = (await app.listo.db.tables.people.findOne({ id: 'tomas' }))!;
  const taken = await make(
    person('Other', { email: email.toUpperCase(), siteId: 'nowhere', managerId: 'nobody' }),
  );
  expect(taken.status).toBe(422);
  expect(codesOf(taken)).toEqual([
    ...['person.email taken', 'person.siteId notAChoice', 'person.managerId notAChoice'],
  ]);
  expect(twice.status).toBe(422);
  const boss = idOf(await make(person('Boss One')));
  const clerk = idOf(await make(person('Clerk Two', { managerId: boss })));
  const kept = await read(boss);
  const ring = await helder!.call('PUT', `/workshop/people/${boss}`, {
    ...{ version: kept.version, person: { ...bodyOf(kept), managerId: clerk } },
  });
  expect(codesOf(ring)).toEqual(['person.managerId lineComesRound']);
});

test('two who add one address at once: one is told that it is taken', async () => {
  for (let i = 0; i < 6; i++) {
    const both = await Promise.all([1, 2].map(() => make(person(`Twice ${i}`))));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 422]);
    expect(codesOf(both.find(({ status }) => status === 422)!)).toEqual(['person.email taken']);
  }
});

test('a change is kept with who made it; a stale one says what differs', async () => {
  const id = idOf(await make(person('Vera Luz')));
  const kept = await read(id);
  const to = (given: Partial<PersonBody>, version = kept.version) =>
    helder!.call('PUT', `/workshop/people/${id}`, { version, person: { ...bodyOf(kept), ...given } });
  expect((await to({ title: 'Purser', goesFirst: true })).body).toEqual({ version: kept.version + 1 });
  expect((await read(id)).history[0]).toMatchObject({
    type: 'personChanged',
    fields: ['title', 'goesFirst'],
  });
  const stale = await to({ title: 'Cook' });
  expect(stale.status).toBe(409);
  expect((stale.body as { differences: object[] }).differences).toContainEqual(
    expect.objectContaining({ field: 'title', theirs: 'Purser', yours: 'Cook' }),
  );
});

test('the last one who administers stays so', async () => {
  const { people } = app.listo.db.tables;
  const others = (await people.find({ isAdministrator: true, leftAt: null })).filter(
    ({ id }) => id !== 'helder',
  );
  for (const { id } of others) await people.update({ id }, { isAdministrator: false });
  const kept = await read('helder');
  const answer = await helder!.call('PUT', '/workshop/people/helder', {
    ...{ version: kept.version, person: { ...bodyOf(kept), isAdministrator: false } },
  });
  expect(codesOf(answer)).toEqual(['person.isAdministrator lastAdministrator']);
  for (const { id } of others) await people.update({ id }, { isAdministrator: true });
});

test('what someone may do changes with their team at once; what they had goes back to it', async () => {
  const id = idOf(await make(person('Gil Prata')));
  const gil = await app.as(id);
  expect((await gil.call('GET', '/worklists')).status).toBe(403);
  const role = { role: 'agent', groupId: null };
  expect((await tomas!.call('PUT', `/workshop/people/${id}/teams/onboard`, role)).status).toBe(403);
  expect((await helder!.call('PUT', `/workshop/people/${id}/teams/onboard`, role)).status).toBe(200);
  expect((await gil.call('GET', '/worklists')).status).toBe(200);
  const wrong = await helder!.call('PUT', `/workshop/people/${id}/teams/onboard`, {
    ...role,
    groupId: 'nowhere',
  });
  expect(codesOf(wrong)).toEqual(['groupId notAChoice']);
  const asked = { serviceId: 'kiosk', title: 'Kiosk 3', answers: KIOSK };
  const { number } = (await tomas!.call('POST', '/tickets', asked)).body as { number: number };
  const { tickets } = app.listo.db.tables;
  await tickets.update({ number }, { teamId: 'onboard', assigneeId: id, state: 'inWork' });
  expect((await helder!.call('DELETE', `/workshop/people/${id}/teams/onboard`)).status).toBe(200);
  expect((await gil.call('GET', '/worklists')).status).toBe(403);
  expect(await tickets.findOne({ number })).toMatchObject({ assigneeId: null, state: 'received' });
});

test('groups and sites are made, each name once', async () => {
  const group = { name: 'Night watch' };
  expect((await helder!.call('POST', '/workshop/teams/onboard/groups', group)).status).toBe(200);
  expect(codesOf(await helder!.call('POST', '/workshop/teams/onboard/groups', group))).toEqual([
    'name taken',
  ]);
  const [calendar] = await app.listo.db.tables.calendars.find({}, { limit: 1 });
  const site = { name: 'Ponta Sul', timeZone: 'Atlantic/Azores', calendarId: calendar!.id };
  expect((await helder!.call('POST', '/workshop/sites', site)).status).toBe(200);
  expect(codesOf(await helder!.call('POST', '/workshop/sites', site))).toEqual(['name taken']);
  const nowhere = { ...site, name: 'X', timeZone: 'Europe/Nowhere' };
  expect(codesOf(await helder!.call('POST', '/workshop/sites', nowhere))).toEqual(['timeZone malformed']);
});

test('finds who may be there already, under another spelling or with the same address', async () => {
  const { name, email } = (await app.listo.db.tables.people.findOne({ id: 'tomas' }))!;
  const alike = async (query: string) =>
    ((await helder!.call('GET', `/workshop/people-alike?${query}`)).body as { id: string }[]).map(
      ({ id }) => id,
    );
  const turned = name.split(' ').reverse().join(', ');
  expect(await alike(`name=${encodeURIComponent(turned)}&email=`)).toContain('tomas');
  expect(await alike(`name=&email=${encodeURIComponent(email)}`)).toEqual(['tomas']);
  expect(await alike('name=Nobody+Known&email=')).toEqual([]);
});

test('a forgotten password: a link goes to whoever has one here, and nobody else learns of it', async () => {
  const id = idOf(await make(person('Lia Mota'), { isInvited: true }));
  const mailsTo = () => app.listo.db.tables.mailOut.find({ toId: id }, { order: ['at'] });
  const tokenOf = ({ text }: { text: string }): string => /welcome\/([\w-]+)/.exec(text)![1]!;
  const forget = (email: string) => nobody('POST', '/session/forgotten', { email });
  const known = 'lia.mota@solvarra.example';
  // Who has none yet keeps the invitation.
  expect(await forget(known)).toEqual({ status: 200, body: { ok: true } });
  const [invited] = await mailsTo();
  const first = { password: 'a calm crossing at dusk' };
  expect((await nobody('POST', `/invitations/${tokenOf(invited!)}`, first)).status).toBe(200);
  const lia = await app.as(id);
  expect(await forget('not.known@solvarra.example')).toEqual({ status: 200, body: { ok: true } });
  expect(await forget(known.toUpperCase())).toEqual({ status: 200, body: { ok: true } });
  const mails = await until(mailsTo, (all) => all.some(({ template }) => template === 'forgotten'));
  expect(mails.map(({ template }) => template)).toEqual(['invited', 'forgotten']);
  const token = tokenOf(mails.at(-1)!);
  // Until it is used, the old one is good.
  expect((await nobody('POST', '/session', { email: known, ...first })).status).toBe(200);
  const second = { password: 'another crossing at dawn' };
  expect((await nobody('POST', `/invitations/${token}`, second)).status).toBe(200);
  expect((await nobody('POST', '/session', { email: known, ...first })).status).toBe(401);
  expect((await nobody('POST', '/session', { email: known, ...second })).status).toBe(200);
  // Where she was signed in with the old one, she is so no more.
  expect((await lia.call('GET', '/sessions')).status).toBe(401);
  await forget(known);
  const [, , last] = await until(mailsTo, (all) => all.length === 3);
  app.clock.pass(FORGOTTEN_MS);
  expect((await nobody('POST', `/invitations/${tokenOf(last!)}`, second)).status).toBe(409);
});
