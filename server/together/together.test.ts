import type { Like } from '../../contract/together';
import { startTestListo, until, type Person, type TestListo } from '../testing/harness';

let app: TestListo;
let [tomas, lena, rui, sofia]: Person[] = [];
beforeAll(async () => {
  app = await startTestListo('together');
  [tomas, lena, rui, sofia] = await Promise.all(['tomas', 'lena', 'rui', 'sofia'].map(app.as));
});
afterAll(() => app.end());

type Page = {
  state: string;
  heldFor: string | null;
  solution: string | null;
  version: number;
  alsoTold: { id: string }[];
  entries: { type: string; from: number | null; message: { text: string } | null }[];
};

async function create(by: Person, title: string): Promise<number> {
  const answers = { site: 'Port Alder', kiosk: '3', what: 'Stops', impact: 'site', urgency: 'slowsWork' };
  const { body } = await by.call('POST', '/tickets', { serviceId: 'kiosk', title, answers });
  return (body as { number: number }).number;
}
const read = async (by: Person, number: number): Promise<Page> =>
  (await by.call('GET', `/tickets/${number}`)).body;
const put = (number: number, under: number, as: string) =>
  rui!.call('PUT', `/tickets/${number}/under`, { under, as });
const say = (by: Person, number: number, text: string) =>
  by.call('POST', `/tickets/${number}/messages`, { text, readBy: 'requester' });
async function move(number: number, name: string, input: object): Promise<void> {
  const { version } = await read(rui!, number);
  const { status } = await rui!.call('POST', `/tickets/${number}/moves`, {
    name,
    by: 'agent',
    version,
    input,
  });
  expect(status).toBe(200);
}

test('what is like a ticket is found, open and solved with how, and only what one may see', async () => {
  const solved = await create(lena!, 'Kiosk frozen on payment page');
  await move(solved, 'take', {});
  await move(solved, 'finish', { solution: 'Restarted the payment module' });
  const open = await create(lena!, 'Payment on the kiosk frozen');
  await create(lena!, 'Printer out of paper');
  const number = await create(tomas!, 'Kiosk 3 frozen on payment');
  const likes = (await rui!.call('GET', `/tickets/${number}/similar`)).body as Like[];
  expect(likes.map((like) => like.number).sort()).toEqual([solved, open].sort());
  expect(likes.find((like) => like.number === solved)).toMatchObject({
    solution: 'Restarted the payment module',
  });
  expect(likes[0]!.sharedWords).toEqual(expect.arrayContaining(['payment', 'frozen']));
  const asked = new URLSearchParams({
    title: 'kiosk frozen, payment',
    serviceId: 'kiosk',
    place: 'Port Alder',
  });
  const reported = (await rui!.call('GET', `/reported?${asked}`)).body as Like[];
  expect(reported.map((like) => like.number).sort()).toEqual([open, number].sort());
  expect((await tomas!.call('GET', `/reported?${asked}`)).status).toBe(403);
  expect((await tomas!.call('GET', `/tickets/${number}/similar`)).status).toBe(403);
});

test('the same matter goes on in one: people and thread come along, and go back when taken apart', async () => {
  const main = await create(tomas!, 'Screens dark');
  const other = await create(lena!, 'All screens are dark');
  await say(lena!, other, 'Since this morning');
  expect((await put(other, main, 'same')).status).toBe(200);
  expect(await read(lena!, other)).toMatchObject({ state: 'closed' });
  const page = await read(rui!, main);
  expect(page.alsoTold.map(({ id }) => id)).toEqual(['lena']);
  expect(page.entries.find(({ message }) => message?.text === 'Since this morning')).toMatchObject({
    from: other,
  });
  // What was asked there first comes along; what became of its own time does not.
  const brought = page.entries.filter(({ from }) => from === other);
  expect(brought.find(({ type }) => type === 'sent')!.message).toMatchObject({ text: 'Stops' });
  expect(brought.map(({ type }) => type)).not.toContain('putUnder');
  // One requester's words are not the other's to read.
  expect((await read(tomas!, main)).entries.some(({ from }) => from !== null)).toBe(false);
  await say(rui!, main, 'Power is back');
  expect((await read(lena!, main)).entries.some(({ message }) => message?.text === 'Power is back')).toBe(
    true,
  );
  const told = await until(
    async () =>
      (await lena!.call('GET', '/notifications')).body as {
        notifications: { event: string; number: number }[];
      },
    ({ notifications }) => notifications.some(({ event }) => event === 'sameMatter'),
  );
  expect(told.notifications.find(({ event }) => event === 'sameMatter')).toMatchObject({ number: other });
  expect((await rui!.call('DELETE', `/tickets/${other}/under`)).status).toBe(200);
  expect(await read(rui!, other)).toMatchObject({ state: 'received' });
  expect((await read(rui!, main)).alsoTold).toEqual([]);
});

test('many with one cause: answered once, done once', async () => {
  const cause = await create(tomas!, 'Switch in the hall broken');
  const children = await Promise.all(['Kiosk 1 dead', 'Kiosk 2 dead'].map((title) => create(lena!, title)));
  for (const child of children) expect((await put(child, cause, 'cause')).status).toBe(200);
  expect(await read(rui!, children[0]!)).toMatchObject({ state: 'held', heldFor: 'ticket' });
  await say(rui!, cause, 'A new switch is on its way');
  for (const child of children)
    await until(
      () => read(lena!, child),
      ({ entries }) =>
        entries.filter(({ message }) => message?.text === 'A new switch is on its way').length === 1,
    );
  await move(cause, 'take', {});
  await move(cause, 'finish', { solution: 'Switch replaced' });
  for (const child of children)
    expect(
      await until(
        () => read(lena!, child),
        ({ state }) => state === 'done',
      ),
    ).toMatchObject({ solution: 'Switch replaced' });
});

test('under itself, in a ring, under two, with others below, or without the right: refused in words', async () => {
  const [a, b, c] = (await Promise.all(['A', 'B', 'C'].map((title) => create(tomas!, title)))) as [
    number,
    number,
    number,
  ];
  const codeOf = ({ body }: { body: never }): string =>
    (body as { fields: { code: string }[] }).fields[0]!.code;
  expect(codeOf(await put(a, a, 'same'))).toBe('itself');
  await put(a, b, 'cause');
  expect(codeOf(await put(b, a, 'cause'))).toBe('ring');
  expect(codeOf(await put(b, c, 'cause'))).toBe('hasOthers');
  expect(codeOf(await put(c, a, 'cause'))).toBe('isUnder');
  expect(codeOf(await put(a, c, 'cause'))).toBe('isUnder');
  expect(codeOf(await put(c, 99_999, 'cause'))).toBe('notAChoice');
  // Whichever of the two was made first.
  for (const [one, other] of [
    [b, c],
    [c, b],
  ])
    expect((await sofia!.call('PUT', `/tickets/${one}/under`, { under: other, as: 'same' })).status).toBe(
      403,
    );
  expect((await rui!.call('DELETE', `/tickets/${c}/under`)).status).toBe(409);
});
