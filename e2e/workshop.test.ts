import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { click, find, listBarriersInBoth, see, setField, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Setting up when work is done and what is promised, in the real interface. */
const { app, browser } = demoSuite('workshop');
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'listo-ics-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const fieldOf = (page: Page, label: string) =>
  page.$eval(`::-p-aria([name="${label}"][role="textbox"])`, (input) => (input as HTMLInputElement).value);

/** Drags over the track of a day from one hour to another. */
async function paint(page: Page, day: string, from: number, to: number): Promise<void> {
  const track = (await page.waitForSelector(`[data-day="${day}"]`))!;
  const { x, y, width, height } = (await track.boundingBox())!;
  const at = (hour: number): number => x + (width * hour) / 24;
  await page.mouse.move(at(from) + 2, y + height / 2);
  await page.mouse.down();
  await page.mouse.move(at(to) - 2, y + height / 2, { steps: 4 });
  await page.mouse.up();
}

test('hours are painted, written and wiped; what a change moves is said before it is saved, and it can be undone', async () => {
  const helder = await browser.open('helder', '/workshop/calendars/terminals');
  await see(helder, 'The week');
  expect(await fieldOf(helder, 'Hours on Monday')).toBe('05:30–23:00');
  await paint(helder, 'mon', 16, 23);
  expect(await fieldOf(helder, 'Hours on Monday')).toBe('05:30–16:00');
  await paint(helder, 'mon', 0, 2);
  expect(await fieldOf(helder, 'Hours on Monday')).toBe('00:00–02:00, 05:30–16:00');
  // A reload loses nothing.
  await helder.reload();
  await see(helder, 'Changed, not saved');
  for (const day of ['Wednesday', 'Thursday', 'Friday']) await type(helder, `Hours on ${day}`, '5:30-11');
  await click(helder, 'Save …');
  // He works in no team, and reads as an administrator what this moves.
  await see(helder, 'What this moves');
  await see(helder, /open tickets/);
  expect(await helder.evaluate(() => document.body.innerText)).not.toContain('You may read none');
  const rui = await browser.open('rui', '/desk/nextUp');
  await see(rui, 'you can move now');
  await click(helder, 'Save it');
  await see(helder, '“Terminals” is saved.');
  await click(helder, 'Undo');
  await helder.waitForFunction(() =>
    [...document.querySelectorAll('input')].some(({ value }) => value === '05:30–23:00'),
  );
});

test('the week is painted by keyboard too, and what is wrong is said at its field', async () => {
  const helder = await browser.open('helder', '/workshop/calendars/office');
  await see(helder, 'The week');
  await helder.focus('[role="application"]');
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowDown'] as const)
    await helder.keyboard.press(key);
  await helder.keyboard.down('Shift');
  for (let i = 0; i < 3; i++) await helder.keyboard.press('ArrowRight');
  await helder.keyboard.up('Shift');
  await helder.keyboard.press('Space');
  expect(await fieldOf(helder, 'Hours on Saturday')).toBe('08:00–10:00');
  await type(helder, 'Hours on Saturday', '9 to nine');
  await see(helder, 'Write hours like 08:00–18:00');
  await type(helder, 'Hours on Saturday', '09:00–09:00');
  await see(helder, 'From and to are the same.');
  await click(helder, 'Throw the changes away');
  expect(await fieldOf(helder, 'Hours on Saturday')).toBe('');
});

test('a day of the year gets hours of its own; holidays and a file close days; a broken file names its line', async () => {
  const helder = await browser.open('helder', '/workshop/calendars/office');
  await see(helder, '3 days of 2026');
  await helder.click('[data-date="2026-12-24"]');
  await type(helder, 'What it is', 'Half day');
  await type(helder, 'Hours (empty: closed)', '08:00–12:00');
  await click(helder, 'Set this day');
  await see(helder, '4 days of 2026');
  // The bar of unsaved changes lies over what is at the foot of the page.
  await helder.$eval('input[type="file"]', (input) =>
    input.parentElement!.scrollIntoView({ block: 'center' }),
  );
  await click(helder, 'Public holidays …');
  await type(helder, 'Country', 'Portugal');
  await click(helder, 'Portugal', 'option');
  await see(helder, 'Public holidays of 2026 to 2028.');
  await helder.locator('::-p-text(Close these)').click();
  await see(helder, /1\d days of 2026/);
  const good = path.join(folder, 'good.ics');
  const lines = (...more: string[]) =>
    ['BEGIN:VCALENDAR', 'VERSION:2.0', ...more, 'END:VCALENDAR', ''].join('\r\n');
  await writeFile(
    good,
    lines('BEGIN:VEVENT', 'UID:1', 'DTSTART;VALUE=DATE:20261130', 'SUMMARY:Moving', 'END:VEVENT'),
  );
  const upload = (await helder.$('input[type="file"]')) as ElementHandle<HTMLInputElement>;
  await upload.uploadFile(good);
  await see(helder, '1 day taken in; 0 entries close nothing.');
  const bad = path.join(folder, 'bad.ics');
  await writeFile(bad, lines('BEGIN:VEVENT', 'DTSTART:tomorrow', 'END:VEVENT'));
  await upload.uploadFile(bad);
  await see(helder, 'Line 4: There is no such date or time: DTSTART:tomorrow');
  await click(helder, 'Throw the changes away');
});

test('“what is two working days after …?” is answered by the calendar as it is drawn', async () => {
  const rui = await browser.open('rui', '/workshop/calendars/office');
  await see(rui, 'You may look at this.');
  await see(rui, /It is Friday, 27 November 2026 at 10:2[4-9]\./);
});

test('a calendar in use is not deleted, and says by whom', async () => {
  const helder = await browser.open('helder', '/workshop/calendars/ships');
  await click(helder, 'Delete');
  await see(helder, 'Still used by Network and radio');
});

test('a promise is switched off and on; what it does as time runs out is changed', async () => {
  const helder = await browser.open('helder', '/workshop/promises');
  await see(helder, 'Parts supplier');
  await click(helder, 'Target “Parts supplier” in use', 'switch');
  await see(helder, '“Parts supplier” is switched off.');
  await click(helder, 'Undo');
  await helder.waitForFunction(() => !document.body.innerText.includes('switched off\n'));
  const card = (await find(helder, 'Taken up', 'article'))!;
  await (await find(card, 'Change what happens', 'button'))!.click();
  await click(helder, 'One more');
  await click(helder, 'Save it');
  await see(helder, 'at 90 %: tells the assignee');
});

test('a promise whose clock can never stop is warned of in words', async () => {
  const { targets } = app.listo.db.tables;
  const { definition } = (await targets.findOne({ id: 'network-hour' }))!;
  await targets.update({ id: 'network-hour' }, { definition: { ...definition, stopWhen: { any: [] } } });
  const helder = await browser.open('helder', '/workshop/promises');
  await see(helder, 'Its clock can never stop');
  await targets.update({ id: 'network-hour' }, { definition });
});

test('what happens out of hours is a sentence to fill in; a new team begins with two targets', async () => {
  const helder = await browser.open('helder', '/workshop/hours');
  await see(helder, 'P1 go to Network and radio, the rest waits');
  await click(helder, 'New team …');
  await type(helder, 'Name in English', 'Crewing');
  await type(helder, 'Name in Portuguese', 'Tripulações');
  await click(helder, 'Save it');
  await see(helder, '“Crewing” is there, with two targets to begin with.');
  await helder.goto(`${app.url}/workshop/promises`);
  await see(helder, 'First answer, Crewing');
});

test('the marks of the dayline open and narrow by keyboard', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  await see(rui, 'you can move now');
  await rui.waitForSelector('[data-number]');
  const all = (await rui.$$('[data-number]')).length;
  const mark = (await rui.waitForSelector('button[data-tone][tabindex="0"]'))!;
  await mark.focus();
  await rui.keyboard.press('ArrowRight');
  await rui.keyboard.down('Shift');
  await rui.keyboard.press('ArrowRight');
  await rui.keyboard.up('Shift');
  await see(rui, 'the whole day again');
  expect((await rui.$$('[data-number]')).length).toBeLessThan(all);
  await rui.keyboard.press('Escape');
  await rui.waitForFunction((count) => document.querySelectorAll('[data-number]').length === count, {}, all);
  await rui.keyboard.press('Enter');
  await rui.waitForSelector('[role="dialog"] a[href^="/desk/everything/"]');
});

test('a due day set by hand stands on the ticket and in the list', async () => {
  const rui = await browser.open('rui', '/desk/nextUp');
  await rui.locator('::-p-text(Kiosk 3 frozen on payment)').click();
  await see(rui, 'Due by hand');
  await rui.locator('::-p-text(Set …)').click();
  await setField(rui, 'Day', '2026-11-26');
  await click(rui, 'Save');
  await see(rui, 'due the end of Thu 26 Nov');
});

test.each([
  ['helder', '/workshop/calendars/office', 'The year'],
  ['helder', '/workshop/promises', 'Parts supplier'],
  ['helder', '/workshop/hours', 'Sites'],
  ['helder', '/workshop/procedures/how-kiosk', 'The steps'],
])('%s at %s meets no barrier, light and dark', async (person, address, sees) => {
  const page = await browser.open(person, address);
  await see(page, sees);
  expect(await listBarriersInBoth(page)).toEqual([]);
});

test('a person is added in a team, invited by mail, and is inside with a password of their own', async () => {
  const helder = await browser.open('helder', '/workshop/people');
  await see(helder, 'Comes in by');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'Add a person …');
  const dialog = await find(helder, 'A new person', 'dialog');
  await type(dialog, 'Name', 'Nadia Reis', 'textbox');
  await type(dialog, 'Mail', 'nadia.reis@solvarra.example', 'textbox');
  await click(dialog, 'Site', 'combobox');
  await click(helder, 'Port Alder', 'option');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'Add Nadia Reis');
  await see(helder, 'Invited by Helder');
  expect(await listBarriersInBoth(helder)).toEqual([]);

  const [mail] = await app.listo.db.tables.mailOut.find({ toAddress: 'nadia.reis@solvarra.example' });
  const nadia = await browser.open(null, new URL(/https?:\S+welcome\S+/.exec(mail!.text)![0]).pathname);
  await see(nadia, 'Welcome to Solvarra Ferries');
  expect(await listBarriersInBoth(nadia)).toEqual([]);
  await type(nadia, 'Password (at least 12 characters)', 'a calm crossing at dusk');
  await click(nadia, 'Come in');
  await see(nadia, 'What do you need, Nadia?');

  await helder.reload();
  await see(helder, 'signed in at one place');
  await click(helder, 'Take into a team', 'combobox');
  await click(helder, 'Finance services', 'option');
  await see(helder, 'works in Finance services');
  // What she may do has come with it, without her doing anything.
  await nadia.reload();
  await nadia.locator('header ::-p-text(Desk)').click();
  await see(nadia, 'Finance services');
});
