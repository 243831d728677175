import { findArticles } from './find';
import { startTestListo, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, rui, hanna, bia, helder, lena]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('knowledge');
  [tomas, rui, hanna, bia, helder, lena] = await Promise.all(
    ['tomas', 'rui', 'hanna', 'bia', 'helder', 'lena'].map(app.as),
  );
});
afterAll(() => app.end());

const words = (en: string, pt = '') => ({ en, pt });
const scanner = {
  ...{ teamId: 'onboard', ownerId: 'rui', place: 'gate', labels: ['gate-broken'], isOpen: false },
  ...{ audience: [], reviewAt: null, fromTicket: null, otherWords: words('reader') },
  title: words('When a gate scanner will not read', 'Quando um leitor não lê'),
  body: words('Wipe the window.\n\n1. Hold **both buttons** for five seconds.', 'Prima os dois botões.'),
};
type Found = { id: string; title: string; passage: { text: string; isMarked: boolean }[]; helped: number };
const search = async (by: Person, q: string, service = '') =>
  (await by.call('GET', `/knowledge/search?q=${encodeURIComponent(q)}${service && `&service=${service}`}`))
    .body as Found[];

async function write(article: object, by = rui!): Promise<string> {
  const { status, body } = await by.call('POST', '/knowledge/articles', { ...scanner, ...article });
  expect(status).toBe(200);
  return (body as { id: string }).id;
}
const move = (by: Person, id: string, to: string, version: number) =>
  by.call('POST', `/knowledge/articles/${id}/moves`, { to, version });
async function publish(article: object): Promise<string> {
  const id = await write(article);
  expect((await move(helder!, id, 'published', 1)).status).toBe(200);
  return id;
}
async function ask(by = tomas!, serviceId = 'gate-broken'): Promise<number> {
  const answers = { site: 'Port Alder', gate: '2', what: 'The scanner reads nothing', impact: 'site' };
  const { body, status } = await by.call('POST', '/tickets', {
    ...{ serviceId, title: 'Gate scanner dark' },
    answers: { ...answers, urgency: 'slowsWork' },
  });
  expect({ status, body }).toMatchObject({ status: 200 });
  return (body as { number: number }).number;
}

test('agents write, those who answer for the team publish; only then it is found, with the passage that answers', async () => {
  const id = await write({ teamId: 'desk', ownerId: 'bia' }, bia!);
  expect(await search(tomas!, 'scaner not readin')).toEqual([]);
  expect((await tomas!.call('POST', '/knowledge/articles', scanner)).status).toBe(403);
  expect((await move(bia!, id, 'published', 1)).status).toBe(403);
  expect((await move(rui!, id, 'published', 1)).status).toBe(403);
  expect((await move(bia!, id, 'review', 1)).body).toEqual({ version: 2 });
  expect((await move(helder!, id, 'published', 1)).status).toBe(409);
  expect((await move(helder!, id, 'published', 2)).body).toEqual({ version: 3 });
  const [found] = await search(tomas!, 'hold buttons scaner');
  expect(found).toMatchObject({ id, title: 'When a gate scanner will not read' });
  expect(found!.passage.filter(({ isMarked }) => isMarked).map(({ text }) => text)).toEqual([
    'Hold',
    'buttons',
  ]);
  expect((await tomas!.call('GET', `/articles/${id}?language=pt`)).body).toMatchObject({
    title: 'Quando um leitor não lê',
    language: 'pt',
  });
});

test('what is being written stays unseen until it is published anew, and each version is kept', async () => {
  const id = await publish({ title: words('Zebra crossing on deck'), body: words('Old words.') });
  const changed = {
    ...scanner,
    title: words('Zebra crossing on deck'),
    body: words('New words.'),
    version: 2,
  };
  expect((await rui!.call('PUT', `/knowledge/articles/${id}`, changed)).body).toEqual({ version: 3 });
  expect((await rui!.call('PUT', `/knowledge/articles/${id}`, changed)).status).toBe(409);
  expect((await tomas!.call('GET', `/articles/${id}`)).body).toMatchObject({ body: 'Old words.' });
  expect((await rui!.call('GET', `/knowledge/articles/${id}`)).body).toMatchObject({ hasChanges: true });
  expect((await move(helder!, id, 'published', 3)).status).toBe(200);
  expect((await tomas!.call('GET', `/articles/${id}`)).body).toMatchObject({ body: 'New words.' });
  expect((await rui!.call('GET', `/knowledge/articles/${id}/versions`)).body).toMatchObject([
    { version: 2, by: { id: 'helder' }, body: { en: 'New words.' } },
    { version: 1, body: { en: 'Old words.' } },
  ]);
  expect((await move(helder!, id, 'retired', 4)).status).toBe(200);
  expect(await search(tomas!, 'zebra')).toEqual([]);
  expect((await tomas!.call('GET', `/articles/${id}`)).status).toBe(404);
});

test('only those it is for find and read it; an open one is read without signing in', async () => {
  const agents = await publish({ title: words('Walrus for agents'), audience: [{ by: 'agent' }] });
  const open = await publish({ title: words('Walrus for all'), isOpen: true });
  expect((await search(tomas!, 'walrus')).map(({ id }) => id)).toEqual([open]);
  expect((await search(rui!, 'walrus')).map(({ id }) => id).sort()).toEqual([agents, open].sort());
  expect((await tomas!.call('GET', `/articles/${agents}`)).status).toBe(404);
  const nobody = (id: string) => fetch(`${app.url}/api/v1/articles/${id}`).then(({ status }) => status);
  expect([await nobody(open), await nobody(agents)]).toEqual([200, 404]);
  expect(
    (await tomas!.call('POST', `/articles/${agents}/judgement`, { helped: true, door: 'ask' })).status,
  ).toBe(404);
  const listed = (await tomas!.call('GET', '/articles')).body as { id: string }[];
  expect(listed.map(({ id }) => id)).toContain(open);
  expect(listed.map(({ id }) => id)).not.toContain(agents);
});

test('a service offers what bears its labels', async () => {
  const other = await publish({ title: words('Ostrich on the quay'), labels: ['kiosk'] });
  expect((await search(tomas!, 'ostrich', 'kiosk')).map(({ id }) => id)).toEqual([other]);
  expect(await search(tomas!, 'ostrich', 'gate-broken')).toEqual([]);
  expect((await search(tomas!, 'ostrich')).length).toBe(1);
  const ofTeam = async (team: string): Promise<unknown> =>
    (await tomas!.call('GET', `/knowledge/search?q=ostrich&team=${team}`)).body;
  expect(await ofTeam('onboard')).toMatchObject([{ id: other }]);
  expect(await ofTeam('network')).toEqual([]);
});

test('other words that authors keep find it too, and no change is lost unseen', async () => {
  const id = await publish({ title: words('Gangway is slippery'), body: words('Put sand on it.') });
  expect(await search(tomas!, 'footbridge')).toEqual([]);
  const before = (await rui!.call('GET', '/knowledge/synonyms')).body as { en: string; version: number };
  const body = { ...before, en: `${before.en}\ngangway, footbridge` };
  expect((await tomas!.call('PUT', '/knowledge/synonyms', body)).status).toBe(403);
  expect((await rui!.call('PUT', '/knowledge/synonyms', body)).status).toBe(200);
  expect((await rui!.call('PUT', '/knowledge/synonyms', body)).status).toBe(409);
  expect((await search(tomas!, 'footbridge')).map((found) => found.id)).toEqual([id]);
});

test('an agent sends an article as an answer; whether it was it is counted, and what became of matters adds up', async () => {
  const id = await publish({ title: words('Lantern at the stern'), body: words('Turn the lantern.') });
  const agents = await publish({ title: words('Lantern for us'), audience: [{ by: 'agent' }] });
  const health = async () =>
    (await rui!.call('GET', '/knowledge/health?days=7')).body as {
      articles: ({ id: string } & Record<string, number>)[];
      fates: Record<string, number>;
    };
  const before = (await health()).fates;
  const number = await ask();
  const { articles } = (await rui!.call('GET', `/tickets/${number}/articles?q=lantern`)).body as {
    articles: Found[];
  };
  expect(articles.map((article) => article.id).sort()).toEqual([id, agents].sort());
  expect((await tomas!.call('GET', `/tickets/${number}/articles`)).status).toBe(403);
  expect((await rui!.call('POST', `/tickets/${number}/articles/${agents}/share`)).body).toMatchObject({
    type: expect.stringContaining('notForRequester') as string,
  });
  expect((await rui!.call('POST', `/tickets/${number}/articles/${id}/share`)).status).toBe(200);
  const ticket = (await tomas!.call('GET', `/tickets/${number}`)).body as { thread: { text?: string }[] };
  expect(JSON.stringify(ticket)).toContain(`/ask/articles/${id}?ticket=${number}`);
  await tomas!.call('POST', `/articles/${id}/opened`, { door: 'desk', number });
  const judge = (by: Person, helped: boolean, isInstead = false) =>
    by.call('POST', `/articles/${id}/judgement`, { helped, isInstead, door: 'ask', words: 'Thanks' });
  await judge(tomas!, false);
  await judge(tomas!, true);
  await judge(lena!, true, true);
  const go = async (name: string, input: object): Promise<void> => {
    const { version } = (await rui!.call('GET', `/tickets/${number}`)).body as { version: number };
    const moved = await rui!.call('POST', `/tickets/${number}/moves`, { name, by: 'agent', version, input });
    expect(moved.status).toBe(200);
  };
  await go('take', {});
  await go('finish', { solution: 'Turned it.' });
  const after = await health();
  expect(after.articles.find((each) => each.id === id)).toMatchObject({
    ...{ opened: 1, helped: 2, notHelped: 0, deflected: 1, shared: 1, doneWith: 1 },
  });
  expect([after.fates.alone! - before.alone!, after.fates.shared! - before.shared!]).toEqual([1, 1]);
  expect(after.fates.without).toBe(before.without);
});

test('what was asked in vain is listed by what it means, with the tickets that it made', async () => {
  const asked = (by: Person, said: string, articleIds: string[] = []) =>
    by.call('POST', '/knowledge/asked', { words: said, door: 'ask', articleIds });
  await asked(tomas!, 'pelican');
  await asked(tomas!, 'pelican nest on the mast');
  await asked(lena!, 'a pelican nest');
  await ask(tomas!);
  const number = await ask(lena!);
  await rui!.call('PUT', `/tickets/${number}/no-article`, { isNothing: true });
  const { groups } = (await rui!.call('GET', '/knowledge/unanswered?days=1')).body as {
    groups: { words: string; asked: number; tickets: number }[];
  };
  expect(groups.find((group) => group.words.includes('pelican'))).toMatchObject({ asked: 2, tickets: 2 });
  expect(groups.find((group) => group.words === 'Gate scanner dark')).toMatchObject({ tickets: 1 });
  expect((await tomas!.call('GET', '/knowledge/unanswered')).status).toBe(403);
});

test('a new article begins from how a ticket was solved, without saying who it was', async () => {
  const number = await ask();
  await tomas!.call('POST', `/tickets/${number}/messages`, {
    ...{ text: 'Tomás here, call me on 912 345 678', readBy: 'requester', links: [], fileIds: [] },
  });
  const written = await publish({ title: words('The heron lamp'), body: words('Turn it.') });
  expect((await rui!.call('POST', `/tickets/${number}/articles/${written}/share`)).status).toBe(200);
  const { body } = await rui!.call('GET', `/tickets/${number}/article-draft`);
  const draft = body as {
    title: { en: string; pt: string };
    body: { en: string; pt: string };
    labels: string[];
  };
  const text = `${draft.body.en}${draft.body.pt}`;
  expect(draft).toMatchObject({ labels: ['gate-broken'], teamId: 'onboard', place: 'gate' });
  expect(text).toContain('The scanner reads nothing');
  expect(text).not.toMatch(/Tomás|912|heron/);
  expect((await hanna!.call('GET', `/tickets/${number}/article-draft`)).status).toBe(200);
  expect((await bia!.call('POST', '/knowledge/articles', { ...scanner, title: words(' ') })).status).not.toBe(
    200,
  );
});

test('what is published is found within a second in every process, also what is written anew', async () => {
  const other = await app.another();
  const viewer = { id: 'tomas', language: 'en' as const };
  const findThere = async (q: string) =>
    (await findArticles(other.listo, viewer, { q })).map(({ title }) => title);
  expect(await findThere('albatross')).toEqual([]);
  const id = await publish({ title: words('Albatross on the mast') });
  const within = async (q: string, title: string): Promise<void> => {
    const until = performance.now() + 1_000;
    while (!(await findThere(q)).includes(title))
      if (performance.now() > until) throw new Error(`no ${title}`);
  };
  await within('albatross', 'Albatross on the mast');
  const anew = { ...scanner, title: words('Cormorant on the mast'), version: 2 };
  await rui!.call('PUT', `/knowledge/articles/${id}`, anew);
  await move(helder!, id, 'published', 3);
  await within('cormorant', 'Cormorant on the mast');
  expect(await findThere('albatross')).toEqual([]);
});

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
async function sendPicture(by: Person): Promise<string> {
  const form = new FormData();
  form.append('file', new Blob([PNG]), 'where.png');
  return ((await by.call('POST', '/files', form)).body as { id: string }).id;
}

test('a picture in an article is seen by those who may read it, and by everyone where it is open', async () => {
  const file = await sendPicture(rui!);
  const sees = async (by: Person) => (await by.call('GET', `/files/${file}`)).status;
  const anyone = async () => (await fetch(`${app.url}/api/v1/files/${file}`)).status;
  const body = words(`Where the window is:\n\n![The window](file:${file})`);
  const id = await write({ body });
  expect([await sees(rui!), await sees(hanna!), await sees(tomas!), await anyone()]).toEqual([
    200, 200, 404, 401,
  ]);
  expect((await move(helder!, id, 'published', 1)).status).toBe(200);
  expect([await sees(tomas!), await anyone()]).toEqual([200, 401]);
  const { version } = (await rui!.call('GET', `/knowledge/articles/${id}`)).body as { version: number };
  await rui!.call('PUT', `/knowledge/articles/${id}`, { ...scanner, body, isOpen: true, version });
  expect(await anyone()).toBe(200);
  // Naming another's file in one's own article gives nobody a sight of it.
  const private_ = await sendPicture(lena!);
  await publish({ title: words('Another'), body: words(`![Not mine](file:${private_})`), isOpen: true });
  expect((await tomas!.call('GET', `/files/${private_}`)).status).toBe(404);
});

test('how an article is used, day by day, and the words that people left', async () => {
  const id = await publish({ title: words('When the turnstile squeaks') });
  const judge = (by: Person, helped: boolean, said: string) =>
    by.call('POST', `/articles/${id}/judgement`, { helped, words: said, door: 'ask' });
  await tomas!.call('POST', `/articles/${id}/opened`, { door: 'ask' });
  await judge(tomas!, false, 'No turnstile here is like that.');
  app.clock.pass(86_400_000);
  await lena!.call('POST', `/articles/${id}/opened`, { door: 'ask' });
  await judge(lena!, true, '');
  const { status, body } = await rui!.call('GET', `/knowledge/articles/${id}/use?days=3`);
  expect(status).toBe(200);
  const { days, words: said } = body as {
    days: { opened: number; helped: number; notHelped: number }[];
    words: object[];
  };
  expect(days.map(({ opened, helped, notHelped }) => [opened, helped, notHelped])).toEqual([
    [0, 0, 0],
    [1, 0, 1],
    [1, 1, 0],
  ]);
  expect(said).toEqual([
    { at: expect.any(Number), helped: false, door: 'ask', words: 'No turnstile here is like that.' },
  ]);
  expect((await tomas!.call('GET', `/knowledge/articles/${id}/use`)).status).toBe(403);
});
