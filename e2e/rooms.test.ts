import { click, find, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';
import type { Page } from 'puppeteer-core';

/** Workplace chat in the real interface: people side by side, tickets made and worked on from it. */
const { browser } = demoSuite('rooms');

const WRITE = 'Write to the room · begin with “Listo,” to hand something in';
async function say(page: Page, words: string): Promise<void> {
  await type(page, WRITE, words);
  await page.keyboard.press('Enter');
}

test('two people side by side; an agent makes a ticket of a line; its line stays current in the room', async () => {
  const lena = await browser.open('lena', '/rooms/alder');
  const bia = await browser.open('bia', '/rooms/alder');
  await see(lena, 'gate 4 at Quell just went dark too');
  await see(bia, 'gate 4 at Quell just went dark too');
  await type(lena, WRITE, 'the lamp over it as well');
  await lena.reload();
  await see(lena, 'same reader model');
  // A reload loses nothing.
  await click(lena, WRITE, '');
  await lena.keyboard.press('Enter');
  await see(bia, 'the lamp over it as well');
  await bia.locator('button[aria-label^="Choose what Lena Storm said"]').click();
  expect(await listBarriersInBoth(bia)).toEqual([]);
  await click(bia, 'Make a ticket of this');
  await see(bia, /guessed/);
  await type(bia, 'Title', 'Gate 4 at Quell is dark');
  await bia.locator('[role="dialog"] button[type="submit"]').click();
  await see(bia, 'for you alone: It is written down as');
  await see(lena, 'Gate 4 at Quell is dark');
  const number = await lena.$$eval('[data-listo="true"] a', (links) =>
    links.at(-1)!.getAttribute('href')!.split('/').at(-1)!,
  );
  const ticket = await browser.open('bia', `/desk/everything/${number}`);
  await see(ticket, 'made it of what was said in chat');
  await see(ticket, 'to what was said');
  await see(ticket, 'gate 4 at Quell just went dark too');
});

test('the team’s room: a card comes by itself, is taken there and on the board beside it, and its thread is the ticket’s', async () => {
  const rui = await browser.open('rui', '/rooms/onboard');
  await see(rui, 'Open in this team, tightest first');
  const tomas = await browser.open('tomas', '/rooms/desk');
  await say(tomas, 'Listo, kiosk 8 shows a blue screen');
  await see(tomas, 'It is written down as');
  await see(rui, /Kiosk 8 shows a blue screen[\s\S]*Tomás Veiga/);
  await rui.locator('li[data-listo="true"]:last-of-type ::-p-aria([name="Take it"][role="button"])').click();
  await see(rui, 'in work · Rui Bastos');
  await rui.locator('ol > li:last-of-type button[aria-label^="Choose what Listo said"]').click();
  await click(rui, 'Answer in its thread');
  await type(rui, 'Write to this thread', 'Firmware, again');
  await rui.keyboard.press('Enter');
  await see(rui, 'Rui Bastos\n');
  await see(rui, 'Firmware, again');
  expect(await tomas.evaluate(() => document.body.innerText)).not.toContain('Firmware, again');
  // What stands on the board is changed where it stands.
  const number = await rui.$$eval('aside li a', (links) =>
    links
      .find(({ innerText }) => innerText.includes('Kiosk 8'))!
      .href.split('/')
      .at(-1)!,
  );
  const priority = `button[aria-label^="Priority of ${number}"]`;
  await rui.locator(priority).click();
  await click(rui, 'Priority', 'combobox');
  await click(rui, 'P4', 'option');
  await type(rui, 'Why?', 'It is a spare one');
  await click(rui, 'Save');
  await rui.locator(`${priority}[aria-label$=": P4"]`).wait();
  expect(await listBarriersInBoth(rui)).toEqual([]);
});

test('what happens to one’s ticket comes in direct talk; the assistant answers there', async () => {
  const tomas = await browser.open('tomas', '/rooms');
  await tomas.locator('nav a ::-p-text(Assistant and my tickets)').click();
  await see(tomas, 'Say what you need');
  await say(tomas, 'where is my ticket');
  await see(tomas, /Is it this\?|one of these|other words|how yours stand|written/);
  await tomas.locator('::-p-text(How you hear of your tickets)').click();
  await see(tomas, 'Quiet hours');
  expect(await listBarriersInBoth(tomas)).toEqual([]);
});

test('a service’s own form is filled in in chat, where the administrator says so', async () => {
  const helder = await browser.open('helder', '/workshop/chat');
  await click(helder, 'Services whose own form is filled in chat', 'combobox');
  await click(helder, 'A list or report', 'option');
  await helder.keyboard.press('Escape');
  await click(helder, 'Save');
  await see(helder, 'Saved.');
  const ines = await browser.open('ines', '/rooms/alder');
  await say(ines, 'I need the sales of last week as a list');
  await see(ines, 'I need the sales of last week');
  await ines.locator('ol > li:last-of-type button[aria-label^="Choose what"]').click();
  await click(ines, 'Make a ticket of this');
  await see(ines, /guessed/);
  await click(ines, 'What it is', 'combobox');
  await click(ines, 'A list or report · request', 'option');
  await ines.locator('[role="dialog"] button[type="submit"]').click();
  await see(ines, 'A list or report');
  await find(ines, 'Title', 'textbox');
  expect(await listBarriersInBoth(ines)).toEqual([]);
});

test('an administrator connects rooms, and a message out is tried before it is on', async () => {
  const helder = await browser.open('helder', '/workshop/chat');
  await see(helder, 'the closed room of a team');
  await type(helder, 'Name', 'P1 to the harbour');
  await click(helder, 'a room', 'combobox');
  await click(helder, 'Harbour weather', 'option');
  await click(helder, 'Add');
  await see(helder, 'P1 to the harbour');
  await click(helder, 'Off', 'switch');
  await see(helder, 'Send it as a trial first');
  await click(helder, 'Try it');
  await see(helder, 'Sent as a trial');
  await click(helder, 'Off', 'switch');
  await find(helder, 'On', 'switch');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  const tomas = await browser.open('tomas', '/rooms/weather');
  await see(tomas, '(a trial; nothing has happened)');
});
