import type { Page } from 'puppeteer-core';
import { click, find, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** One request, from the person who has the need to the person who meets it and back, in the real interface. */
const { app, browser } = demoSuite('slice');

const numberOf = (page: Page): number => Number(/tickets\/(\d+)/.exec(page.url())![1]);
const valueOf = (page: Page, selector: string) =>
  page.$eval(selector, (input) => (input as HTMLInputElement).value);

test('asked, agreed, taken, answered, held, done and confirmed', async () => {
  const tomas = await browser.open('tomas', '/ask');
  await type(tomas, 'Say it in your own words', 'gate scanner');
  await see(tomas, 'needs your manager');
  await tomas.locator('::-p-text(A scanner for a new gate)').click();
  await see(tomas, 'filled in for you');
  expect(await valueOf(tomas, '#field-site')).toBe('Port Alder');
  expect(await valueOf(tomas, '#field-place')).toBe('Ticket hall');
  // What comes while one reads moves what is below it.
  await see(tomas, 'This may answer it at once');
  await click(tomas, 'Send to Onboard systems');
  await see(tomas, 'One more look, please: 2 to mend.');
  await type(tomas, 'In one line needed', 'Scanner for gate 3');
  await click(tomas, 'In the hand', 'radio');
  await tomas.locator('#field-count').fill('2');
  await tomas.reload();
  await see(tomas, 'filled in for you');
  expect(await valueOf(tomas, '#field-title')).toBe('Scanner for gate 3');
  expect(await valueOf(tomas, '#field-count')).toBe('2');
  await click(tomas, 'Send to Onboard systems');
  await see(tomas, 'Ana Lobo has to agree first.');
  const number = numberOf(tomas);

  const rui = await browser.open('rui', '/desk/nextUp');
  await see(rui, 'you can move now');
  expect(await rui.$(`[data-number="${number}"]`)).toBeNull();

  const ana = await browser.open('ana', '/ask');
  await see(ana, 'Scanner for gate 3');
  const ask = await find(ana, 'Scanner for gate 3', 'article');
  expect(await ask!.evaluate((article) => article.textContent)).toMatch(
    /Tomás Veiga.*costs €340.*because you are their manager/,
  );
  await (await find(ask, 'Yes', 'button')).click();
  await see(ana, 'You agreed to “Scanner for gate 3”.');

  await rui.waitForSelector(`[data-number="${number}"]`);
  await see(tomas, 'Onboard systems have it and will take it up.');
  await rui.click(`[data-number="${number}"] a`);
  await click(rui, 'Take');
  await see(tomas, 'Rui Bastos is on it. Then you confirm.');

  await click(rui, '+ bring Tomás in');
  await type(rui, 'Answer Tomás Veiga', 'Ordered, two days.');
  await click(rui, 'Send to Tomás');
  await see(tomas, 'Ordered, two days.');
  await click(rui, 'Tomás Veiga ×', 'button');
  await type(rui, 'A note that only the team reads', 'Only four left in stock.');
  await click(rui, 'Keep in the team');
  await see(rui, 'Only four left in stock.');

  await click(rui, 'Hold …');
  await click(rui, 'Hold');
  await see(rui, 'This is needed.');
  await click(rui, 'For whom or what?', '');
  await click(rui, 'the requester', 'option');
  await type(rui, 'The question to Tomás Veiga', 'Left or right hand?');
  await click(rui, 'Hold');
  await see(tomas, 'It waits for your answer.');
  await see(tomas, 'Left or right hand?');
  await type(tomas, 'Write to Rui Bastos', 'Right hand.');
  await click(tomas, 'Send');
  await see(rui, 'Right hand.');
  await see(rui, 'Rui Bastos works on it');

  await click(rui, 'Done …');
  await type(rui, 'How was it solved?', 'Both handed over.');
  await click(rui, 'Done');
  await see(tomas, 'It is done. Is it, for you too?');
  await click(tomas, 'Yes, it is done');
  await tomas.locator('::-p-text(Very good)').click();
  await click(tomas, 'Confirm');
  await see(tomas, 'Done and closed.');
  const shown = await tomas.evaluate(() => document.body.innerText);
  expect(shown).not.toContain('Only four left in stock.');
  await see(rui, 'Tomás Veiga confirmed it');
});

test('a ticket taken from the list can be given back at once', async () => {
  const hanna = await browser.open('hanna', '/desk/unassigned');
  await see(hanna, 'that nobody has taken');
  await hanna.waitForSelector('[data-number]');
  await hanna.keyboard.press('ArrowDown');
  await hanna.waitForSelector('[data-selected]');
  const number = await hanna.$eval('[data-selected]', (row) => row.getAttribute('data-number'));
  await hanna.keyboard.press('t');
  await see(hanna, `You took ${number!}.`);
  await hanna.waitForFunction((row) => !document.querySelector(`[data-number="${row}"]`), {}, number!);
  await click(hanna, 'Undo');
  await hanna.waitForSelector(`[data-number="${number!}"]`);
});

test('“why this time?” adds up to what the clock shows', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  await rui.locator('::-p-text(Kiosk 3 frozen on payment)').click();
  await see(rui, 'Resolve · within 8 h');
  await rui.locator('[data-clock="resolution"]').click();
  await see(rui, /1 h 1\d min of 8 h used/);
  const cells = await rui.$$eval('[role="dialog"] tbody tr', (rows) =>
    rows.map((row) => [...row.children].map((cell) => cell.textContent)),
  );
  const counted = cells.filter(([, , , kind]) => kind === 'counted');
  expect(counted.at(-1)!.at(-1)).toMatch(/^1 h 1\d min$/);
  // What is to come leads to the limit, and the minutes shown add up.
  expect(cells.at(-1)!.slice(3).filter(Boolean)).toEqual(['still to come', expect.any(String), '8 h']);
  const minutes = (text: string | null): number =>
    text!
      .match(/\d+ (h|min)/g)!
      .reduce((sum, part) => sum + parseInt(part) * (part.endsWith('h') ? 60 : 1), 0);
  const added = cells.filter(([, , , kind]) => kind !== 'outside hours').map((cell) => minutes(cell[4]!));
  expect(added.reduce((sum, each) => sum + each, 0)).toBe(8 * 60);
});

test('“why this time?” opens from the list by a key, and the requester reads it too', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  const row = (await rui.waitForSelector('::-p-text(Kiosk 3 frozen on payment)'))!;
  const number = await row.evaluate((at) => at.closest<HTMLElement>('[data-number]')!.dataset.number!);
  await rui.focus(`[data-number="${number}"]`);
  await rui.keyboard.press('y');
  await see(rui, 'Why this time? Resolve');
  const tomas = await browser.open('tomas', `/ask/tickets/${number}`);
  await click(tomas, 'why this time?');
  await see(tomas, /1 h 1\d min of 8 h used/);
});

test('past due, the page says so at that instant, without a reload', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  await see(rui, 'you can move now');
  const row = await app.listo.db.select<{ number: number; tightestDueAt: number }>(
    "SELECT number, tightestDueAt FROM tickets WHERE teamId = 'onboard' AND state IN ('received', 'inWork') AND (assigneeId IS NULL OR assigneeId = 'rui') AND tightestDueAt > :now ORDER BY tightestDueAt LIMIT 1",
    { now: app.now() },
  );
  const { number, tightestDueAt } = row[0]!;
  app.setNow(tightestDueAt - 12_000);
  await rui.reload();
  await rui.waitForSelector(`[data-number="${number}"] [data-tone="short"]`);
  await rui.waitForSelector(`[data-number="${number}"] [data-tone="past"]`);
  expect(app.now()).toBeGreaterThanOrEqual(tightestDueAt);
});

test('a confidential ticket shows nothing of itself to others', async () => {
  const [confidential] = await app.listo.db.select<{ number: number; title: string }>(
    "SELECT number, title FROM tickets WHERE teamId = 'people' AND state = 'inWork' LIMIT 1",
  );
  const rui = await browser.open('rui', `/desk/everything/${confidential!.number}`);
  await see(rui, 'There is nothing at this address');
  const sofia = await browser.open('sofia', `/desk/everything/${confidential!.number}`);
  await see(sofia, confidential!.title);
});

describe('no barriers, light and dark', () => {
  test.each<[string, string | null, string, string | RegExp]>([
    ['signing in', null, '/', 'Who are you today?'],
    ['Ask', 'tomas', '/ask', 'Or start from where you are'],
    ['deciding', 'ana', '/ask', 'For you to decide'],
    ['a form', 'tomas', '/ask/services/kiosk', 'Send to Onboard systems'],
    ['past tickets', 'tomas', '/ask/past', 'What you asked for before'],
    ['sessions', 'tomas', '/sessions', 'Where you are signed in'],
    ['a worklist', 'rui', '/desk/nextUp', 'you can move now'],
    ['nothing there', 'rui', '/nowhere', 'There is nothing at this address'],
  ])('%s', async (_, person, address, text) => {
    const page = await browser.open(person, address);
    await see(page, text);
    expect(await listBarriersInBoth(page)).toEqual([]);
  });

  test('a ticket, on the Desk and for its requester', async () => {
    const [{ number }] = (await app.listo.db.select<{ number: number }>(
      "SELECT number FROM tickets WHERE title = 'Kiosk 3 frozen on payment' ORDER BY number DESC LIMIT 1",
    )) as [{ number: number }];
    const desk = await browser.open('rui', `/desk/nextUp/${number}`);
    await see(desk, 'What happens next');
    expect(await listBarriersInBoth(desk)).toEqual([]);
    const own = await browser.open('tomas', `/ask/tickets/${number}`);
    await see(own, 'What you told us');
    expect(await listBarriersInBoth(own)).toEqual([]);
  });
});

test('Ask works on a phone, in Portuguese too', async () => {
  const page = await browser.open('tomas', '/ask', { width: 390 });
  await see(page, 'Or start from where you are');
  const isWider = await page.evaluate(() => document.documentElement.scrollWidth > window.innerWidth);
  expect(isWider).toBe(false);
  await click(page, 'TV You: Tomás Veiga', 'button');
  await page.locator('::-p-text(Português)').click();
  await see(page, 'De que precisa, Tomás?');
  await page.reload();
  await see(page, 'Ou comece por onde está');
});
