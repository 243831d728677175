import { startTestListo, type Person, type TestListo } from '../testing/harness';

/** What someone asked for or follows: page by page, the newest first, nothing twice and nothing left out. */
let app: TestListo;
let tomas: Person;
beforeAll(async () => {
  app = await startTestListo('mine');
  tomas = await app.as('tomas');
});
afterAll(() => app.end());

type Page = { rows: { number: number }[]; next: number | null };
async function readAll(which: 'open' | 'past'): Promise<number[][]> {
  const pages: number[][] = [];
  for (let before: number | null = Number.MAX_SAFE_INTEGER; before !== null;) {
    const { body } = await tomas.call('GET', `/my/tickets?which=${which}&before=${before}`);
    const { rows, next } = body as Page;
    pages.push(rows.map(({ number }) => number));
    before = next;
  }
  return pages;
}
async function ask(by: Person, body: object = {}): Promise<number> {
  const answers = { site: 'Port Alder', what: 'Broken', impact: 'me', urgency: 'canWait' };
  const { body: made } = await by.call('POST', '/tickets', {
    serviceId: 'other',
    title: 'Mine',
    answers,
    ...body,
  });
  return (made as { number: number }).number;
}

test('tickets of every state stand in their half, the newest first, also where there are many', async () => {
  const first = await ask(tomas);
  const { tickets } = app.listo.db.tables;
  const like = (await tickets.findOne({ number: first }))!;
  const states = ['received', 'inWork', 'held', 'done', 'closed', 'withdrawn'] as const;
  const more = Array.from({ length: 180 }, (_, i) => ({
    ...{ ...like, number: first + 1_000 + i, state: states[i % states.length]! },
  }));
  await tickets.insertAll(more);
  const numbersIn = (wanted: readonly string[]): number[] =>
    more
      .filter(({ state }) => wanted.includes(state))
      .map(({ number }) => number)
      .sort((a, b) => b - a);
  const [open, past] = [await readAll('open'), await readAll('past')];
  expect(open.flat()).toEqual([...numbersIn(states.slice(0, 4)), first]);
  expect(past.flat()).toEqual(numbersIn(states.slice(4)));
  expect(open.map((page) => page.length)).toEqual([50, 50, 21]);
});

test('one that is followed stands among one’s own, once; one that is neither does not', async () => {
  const ines = await app.as('ines');
  const followed = await ask(ines);
  const other = await ask(ines);
  await ines.call('PUT', `/tickets/${followed}/followers`, { personId: 'tomas', role: 'alsoTold' });
  const own = await ask(tomas);
  await app.listo.db.tables.followers.insert({
    ticketNumber: own,
    personId: 'tomas',
    role: 'alsoTold',
  } as never);
  const open = (await readAll('open')).flat();
  expect(open.filter((number) => [followed, own, other].includes(number))).toEqual([own, followed]);
});
