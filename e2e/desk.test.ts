import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { click, find, listBarriers, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** An agent's day on the Desk: lists of one's own, ways of seeing them, doing to many, what happened before. */
const { app, browser } = demoSuite('desk');

const numbersOn = (page: Page): Promise<string[]> =>
  page.$$eval('[role="row"][data-number]', (rows) => rows.map((row) => row.getAttribute('data-number')!));
const select = (page: Page, label: string, value: string) =>
  page.select(`select[aria-label="${label}"]`, value);

test('a list of one’s own, kept from a narrowed one, shared, and found again', async () => {
  const rui = await browser.open('rui', '/desk/teams');
  await see(rui, 'open in your teams');
  await click(rui, 'narrow …');
  await type(rui, 'Only titles with these words (Enter)', 'kiosk');
  await rui.keyboard.press('Enter');
  await see(rui, 'Title contains kiosk');
  await rui.keyboard.press('Escape');
  await rui.waitForFunction(() => location.search.includes('kiosk'));
  await rui.locator('h1 button').click();
  await rui.locator('::-p-text(Keep this as a list of your own)').click();
  await type(rui, 'Name', 'Kiosks');
  await rui.select('[role="dialog"] select', 'onboard');
  await click(rui, 'Save');
  await see(rui, 'in this list');
  await rui.waitForSelector('[role="row"][data-number]');
  const kept = await numbersOn(rui);
  expect(kept.length).toBeGreaterThan(0);
  const hanna = await browser.open('hanna', '/desk/nextUp');
  await see(hanna, 'you can move now');
  await hanna.locator('h1 button').click();
  await hanna.locator('::-p-text(Kiosks)').click();
  await see(hanna, 'in this list');
  await hanna.waitForFunction(
    (count) => document.querySelectorAll('[role="row"][data-number]').length === count,
    {},
    kept.length,
  );
  expect(await listBarriers(hanna)).toEqual([]);
});

test('the same list as a board, as load, as a calendar and as shares; the address says which', async () => {
  const rui = await browser.open('rui', '/desk/teams');
  await see(rui, 'open in your teams');
  await select(rui, 'Seen as', 'board');
  await rui.waitForSelector('[data-column="held"] [data-number]');
  expect(rui.url()).toContain('as=board');
  expect(await listBarriers(rui)).toEqual([]);
  // A card goes to Held by its menu, and its form asks for whom.
  const number = await rui.$eval('[data-column="inWork"] [data-number]', (card) =>
    card.getAttribute('data-number')!,
  );
  await click(rui, `Move ${number}`);
  await rui.locator('[role="menu"] ::-p-text(Held)').click();
  await see(rui, `Hold: ${number}`);
  await rui.keyboard.press('Escape');
  await select(rui, 'Seen as', 'load');
  await rui.waitForSelector('[data-person="ivo"]');
  expect(await listBarriers(rui)).toEqual([]);
  await select(rui, 'Seen as', 'calendar');
  await rui.waitForSelector('[data-today]');
  expect(await listBarriers(rui)).toEqual([]);
  await select(rui, 'Seen as', 'shares');
  await rui.locator('[data-field="priority"] [data-value="P4"]').click();
  await see(rui, 'Priority is one of P4');
  expect(await listBarriers(rui)).toEqual([]);
  await select(rui, 'Seen as', 'time');
  await rui.waitForSelector('[role="row"][data-number]');
  const priorities = await rui.$$eval('[role="row"][data-number]', (rows) =>
    rows.map((row) => row.textContent),
  );
  expect(priorities.every((text) => text.includes('P4'))).toBe(true);
});

test('a card is taken anywhere and goes to whom the pointer is over', async () => {
  const rui = await browser.open('rui', '/desk/teams?as=load');
  await click(rui, 'Rui Bastos');
  const card = (await rui.waitForSelector('[data-person="rui"] [data-number]'))!;
  const number = await card.evaluate((element) => element.getAttribute('data-number')!);
  const from = (await card.boundingBox())!;
  const to = (await (await rui.waitForSelector('[data-person="ivo"]'))!.boundingBox())!;
  await rui.mouse.move(from.x + 20, from.y + from.height - 6);
  await rui.mouse.down();
  await rui.mouse.move(to.x + 300, to.y + to.height / 2, { steps: 6 });
  await rui.waitForSelector('[data-person="ivo"][data-over]');
  await rui.mouse.up();
  await click(rui, 'Ivo Ramires');
  await rui.waitForSelector(`[data-person="ivo"] [data-number="${number}"]`);
  const ivo = await browser.open('ivo', '/desk/mine');
  await ivo.waitForSelector(`[data-number="${number}"]`);
});

test('chosen by keys, done to many at once, and put back', async () => {
  const rui = await browser.open('rui', '/desk/unassigned');
  await rui.waitForSelector('[role="row"][data-number]');
  await rui.keyboard.press('ArrowDown');
  await rui.keyboard.press('x');
  await rui.keyboard.press('ArrowDown');
  await rui.keyboard.press('x');
  await see(rui, '2 chosen');
  // What can be done stands at the foot of the page, however long the list is.
  await rui.setViewport({ width: 1280, height: 420 });
  const isInView = (bar: Element): boolean => bar.getBoundingClientRect().bottom <= window.innerHeight;
  expect(await rui.$eval('[role="toolbar"][aria-label="Do to all that is chosen"]', isInView)).toBe(true);
  await rui.setViewport({ width: 1280, height: 800 });
  const chosen = await rui.$$eval('[data-chosen]', (rows) =>
    rows.map((row) => row.getAttribute('data-number')!),
  );
  await click(rui, 'Take');
  await see(rui, '2 of 2 done.');
  const mine = await browser.open('rui', '/desk/mine');
  for (const number of chosen) await mine.waitForSelector(`[data-number="${number}"]`);
  await click(rui, 'Undo');
  await see(rui, '2 of 2 put back.');
  for (const number of chosen) await rui.waitForSelector(`[data-number="${number}"]`);
});

test('a value is changed where it stands in the row; another sees it without a reload', async () => {
  const rui = await browser.open('rui', '/desk/unassigned');
  const hanna = await browser.open('hanna', '/desk/mine');
  await rui.waitForSelector('[role="row"][data-number]');
  await see(hanna, 'with you');
  const number = (await numbersOn(rui))[0]!;
  await rui.locator(`[data-number="${number}"] ::-p-text(Unassigned)`).click();
  await find(rui, 'Give it to');
  await rui.locator('[role="option"] ::-p-text(Hanna Vik)').click();
  await hanna.waitForSelector(`[data-number="${number}"]`);
});

test('a ready text by a few letters, time by the timer, and what is alike, on one page', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  await rui.locator('::-p-text(Kiosk 3 frozen on payment)').click();
  await see(rui, 'What happened before');
  await rui.waitForSelector('[data-like]');
  await click(rui, 'Ready texts');
  await click(rui, 'Change ready texts …');
  await click(rui, 'A new ready text');
  await type(rui, 'Name', 'On its way');
  await type(rui, 'In English', 'Hello {name}, {number} is on its way.');
  await click(rui, 'Save');
  await see(rui, 'On its way');
  await rui.keyboard.press('Escape');
  await click(rui, 'Ready texts');
  await type(rui, 'Find a ready text by a few letters', 'oiw');
  await rui.waitForSelector('[role="option"][aria-selected="true"]');
  await rui.keyboard.press('Enter');
  await rui.waitForFunction(() =>
    [...document.querySelectorAll('textarea')].some(({ value }) =>
      /^Hello Tomás, \d+ is on its way\.$/.test(value),
    ),
  );
  await click(rui, 'Start the timer');
  await see(rui, 'Timer: 1 min');
  await rui.reload();
  await see(rui, 'Timer: 1 min');
  await see(rui, 'Time spent');
  await rui.waitForSelector('[data-like]');
  await click(rui, 'Stop the timer');
  await see(rui, 'Start the timer');
  expect(await listBarriers(rui)).toEqual([]);
});

test('a caller: their history first, reported already, raised with few words', async () => {
  const bia = await browser.open('bia', '/desk/raise');
  await type(bia, 'Who', 'Tomás V');
  await bia.locator('[role="option"] ::-p-text(Tomás Veiga)').click();
  await see(bia, 'Kiosk 3 frozen on payment');
  await type(bia, 'What is it about?', 'Kiosk frozen on payment again');
  await bia.locator('button ::-p-text(A ticket kiosk has a problem)').click();
  await see(bia, 'Already reported?');
  await click(bia, 'Keep as a template');
  await click(bia, 'Save');
  await see(bia, '“Kiosk frozen on payment again” is kept for Service desk.');
  expect(await listBarriers(bia)).toEqual([]);
  await click(bia, 'Raise it');
  await bia.waitForFunction(() => /\/desk\/everything\/\d+$/.test(location.pathname));
  await see(bia, 'by phone');
  await bia.goto(`${app.url}/desk/raise`);
  await find(bia, 'From a template');
  const template = await bia.$$eval(
    'option',
    (options) => options.find(({ textContent }) => textContent === 'Kiosk frozen on payment again')!.value,
  );
  await bia.select(`select:has(option[value="${template}"])`, template);
  await bia.waitForFunction(() =>
    [...document.querySelectorAll('input')].some(({ value }) => value === 'A ticket kiosk has a problem'),
  );
  await click(bia, 'Name and offer …');
  await type(bia, 'Name of the template', 'Kiosks and cards');
  await click(bia, 'Save');
  await see(bia, '“Kiosks and cards” is saved.');
});

test('broken off for a call and for a conversation, half-done work is as it was left', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  await rui.locator('::-p-text(Kiosk 5 frozen on payment)').click();
  await click(rui, 'Done …');
  await type(rui, 'How was it solved?', 'Reader restarted, but the queue');
  for (let i = 0; i < 5; i++) await rui.keyboard.press('ArrowLeft');
  await rui.keyboard.press('F8');
  await see(rui, 'Raise for someone');
  await see(rui, 'Back to “Kiosk 5 frozen on payment”');
  await rui.keyboard.press('F9');
  await rui.waitForFunction(() => location.pathname === '/desk/conversations');
  expect(await listBarriers(rui)).toEqual([]);
  await rui.keyboard.press('F9');
  await rui.waitForFunction(() => document.activeElement instanceof HTMLTextAreaElement);
  await rui.keyboard.type('long ');
  await rui.waitForFunction(
    () => (document.activeElement as HTMLTextAreaElement).value === 'Reader restarted, but the long queue',
  );
  expect(await rui.evaluate(() => document.body.innerText.includes('Back to “'))).toBe(false);
});

test('what was filed wrongly is put right in place', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  await rui.locator('::-p-text(Kiosk 2 out of paper)').click();
  await see(rui, 'why this time?');
  await click(rui, 'Service', 'combobox');
  await click(rui, 'Something is broken at a gate', 'option');
  await see(rui, 'You filed it under “Something is broken at a gate”');
  await click(rui, 'Service', 'combobox');
  await click(rui, 'Move to another base', 'option');
  await see(rui, 'Raise it anew and put this one under it.');
  await click(rui, 'Someone else asks …');
  await type(rui, 'Who asks for this?', 'Lena St');
  await rui.locator('[role="option"] ::-p-text(Lena Storm)').click();
  await see(rui, /You put Lena Storm in the place of/);
  expect(await listBarriers(rui)).toEqual([]);
});

test('how it is done stands beside the ticket, is ticked off, and is changed by who leads', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  await rui.locator('::-p-text(Kiosk 3 frozen on payment)').click();
  await see(rui, 'Ask the terminal lead to send the queue');
  await click(rui, 'Done: Send the people on', 'checkbox');
  await see(rui, 'You did “Send the people on”');
  await see(rui, 'The small screen shows a letter and two digits:');
  await see(rui, '1 of 4 done');
  await rui.locator('::-p-text(Change it)').click();
  await see(rui, 'The steps');
  await type(rui, 'Step, en', 'Send everyone on');
  await click(rui, 'Save');
  await see(rui, '“A kiosk that does not sell” is saved.');
  await rui.goBack();
  await see(rui, 'Send everyone on');
});

test('tickets come in from a table: mapped, checked by line, written and seen', async () => {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'listo-table-'));
  const file = path.join(folder, 'old.csv');
  await writeFile(
    file,
    'Subject;Caller;Impact\nTurnstile 9 sticks;Tomás Veiga;a site\nNo such person;Nobody Here;\nTurnstile 10 sticks;lena;\n',
  );
  const rui = await browser.open('rui', '/desk/import');
  await see(rui, 'Drop the file here');
  await ((await rui.waitForSelector('input[type="file"]')) as ElementHandle<HTMLInputElement>).uploadFile(
    file,
  );
  await see(rui, '3 rows');
  expect(await listBarriersInBoth(rui)).toEqual([]);
  await rui.select('select[aria-label="Service"]', 'always');
  await type(rui, 'Service: the same for all …', 'A ticket kiosk');
  await rui.locator('[role="option"]').click();
  await click(rui, 'Check every row');
  await see(rui, 'Rows that fit: 2; that do not: 1.');
  await see(rui, 'nobody here is called that');
  await click(rui, 'Write 2 tickets');
  await see(rui, 'Done: 2 tickets are written.');
  await rui.locator('::-p-text(See them)').click();
  await see(rui, 'Turnstile 9 sticks');
  await rm(folder, { recursive: true, force: true });
});

test('the first page: what I can move beside how my teams stand; each number leads to what it counts', async () => {
  const rui = await browser.open('rui', '/desk');
  await see(rui, 'Rui, you can move');
  await see(rui, 'last 7 days');
  expect(await listBarriersInBoth(rui)).toEqual([]);
  for (const figure of ['late', 'due', 'held', 'unassigned']) {
    const link = `[data-team="onboard"] [data-figure="${figure}"] a`;
    await rui.goto(`${app.url}/desk`);
    await rui.waitForSelector(link);
    const count = await rui.$eval(link, ({ textContent }) => Number(textContent));
    expect(count).toBeGreaterThan(0);
    await rui.locator(link).click();
    await rui.waitForFunction(
      (wanted) => document.querySelectorAll('[role="row"][data-number]').length === wanted,
      {},
      count,
    );
  }
  const bia = await browser.open('rui', '/desk/time?by=service&over=quarter');
  await see(bia, 'A ticket kiosk has a problem');
  expect(await listBarriersInBoth(bia)).toEqual([]);
});

test('by keyboard alone: done from the list, the next row is current, and it can be undone', async () => {
  const rui = await browser.open('rui', '/desk/mine');
  await rui.waitForSelector('[role="row"][data-number]');
  const [first, second, third] = await numbersOn(rui);
  expect(third).toBeDefined();
  const hasFocus = (number: string) =>
    rui.waitForFunction(
      (wanted) => document.activeElement?.closest('[data-number]')?.getAttribute('data-number') === wanted,
      {},
      number,
    );
  await rui.keyboard.press('ArrowDown');
  await hasFocus(first!);
  await rui.keyboard.press('ArrowDown');
  await hasFocus(second!);
  await rui.keyboard.press('d');
  await find(rui, 'How was it solved?');
  await rui.waitForFunction(() => document.activeElement?.tagName === 'TEXTAREA');
  await rui.keyboard.type('Cable replaced');
  await rui.keyboard.down('Control');
  await rui.keyboard.press('Enter');
  await rui.keyboard.up('Control');
  await see(rui, `${second} is done`);
  // The row below has come into its place, with the focus.
  await hasFocus(third!);
  await click(rui, 'Undo');
  await rui.waitForSelector(`[role="row"][data-number="${second}"]`);
  // On the ticket: what opens has the focus, Escape leaves it, then the page.
  await rui.keyboard.press('Enter');
  await see(rui, 'Facts');
  await rui.keyboard.press('h');
  await rui.waitForFunction(
    () => document.activeElement?.closest('form')?.getAttribute('aria-label') !== undefined,
  );
  await rui.waitForFunction(() => /^(INPUT|TEXTAREA)$/.test(document.activeElement?.tagName ?? ''));
  await rui.keyboard.press('Escape');
  await rui.waitForFunction(() => document.activeElement === document.body);
  await rui.keyboard.press('Escape');
  await rui.waitForFunction(() => location.pathname === '/desk/mine');
});
