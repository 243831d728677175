import type { Page } from 'puppeteer-core';
import { click, hearMoving, listBarriers, see, setField, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** A request that several teams fulfil, from the one who raises it to those whose turn it is, in the real interface. */
const { browser } = demoSuite('plans');

/** Chooses from a list that opens. */
async function pick(page: Page, label: string, option: string): Promise<void> {
  await click(page, label, 'combobox');
  await click(page, option, 'option');
}

test('raised by a manager for someone else, it promises a date and says where it stands, to both', async () => {
  const aro = await browser.open(
    'aro',
    '/ask/services/crew-transfer?for=joel&name=Joel+Brandt&title=Joel+moves',
  );
  await see(aro, 'Move to another base');
  // What the desk has prepared for what comes again fills in the form; what is different is changed.
  await aro.waitForSelector('option[value="season-crew"]');
  await aro.select('select:has(option[value="season-crew"])', 'season-crew');
  await type(aro, 'In one line needed', 'Joel moves');
  await pick(aro, 'To which base? needed', 'Quell Harbour');
  await setField(aro, 'First day there needed', '2027-01-11');
  await click(aro, 'Send to Service desk');
  await see(aro, 'promised');
  await see(aro, /Agree\s+0 of 1 done/);
  expect(await listBarriers(aro)).toEqual([]);
  const joel = await browser.open('joel', '/ask');
  await see(joel, 'Joel moves');
  await see(joel, /promised \w+ \d/);
});

test('a team finds its step in its list, takes it, ticks it off and is done with it', async () => {
  const jonas = await browser.open('jonas', '/desk/nextUp');
  await see(jonas, 'Safety gear in the right size');
  await jonas.locator('[data-row$="-gear"] a').click();
  await see(jonas, 'Boots');
  await click(jonas, 'Boots', 'checkbox');
  await jonas.waitForFunction(
    () => document.querySelector<HTMLInputElement>('[role="group"][aria-label^="To do"] input')?.checked,
  );
  await click(jonas, 'Done: Safety gear in the right size');
  await see(jonas, /Prepare\s+2 of 4 done/);
  expect(await listBarriers(jonas)).toEqual([]);
});

test('a lead puts large requests in order by the keyboard and lets one go ahead with a word; who asked reads it', async () => {
  const vasco = await browser.open('vasco', '/desk/today');
  await click(vasco, '3 large requests wait for their turn', 'link');
  await see(vasco, /1\s+One booking for a car[\s\S]+2\s+Stock shows[\s\S]+3\s+Invoices summed/);
  expect(await listBarriers(vasco)).toEqual([]);
  await vasco.focus('[aria-label="Move: Stock shows what is on order"]');
  await vasco.keyboard.press('Space');
  await hearMoving(vasco, /place 2 of 3/);
  await vasco.keyboard.press('ArrowUp');
  await hearMoving(vasco, /Over place 1 of 3/);
  await vasco.keyboard.press('Space');
  await see(vasco, /1\s+Stock shows[\s\S]+2\s+One booking for a car/);

  const jonas = await browser.open('jonas', '/ask');
  await jonas.locator('::-p-text(Stock shows what is on order)').click();
  await see(jonas, 'place 1 of 3');
  await see(jonas, 'Vasco Lourinho put it in place 1 of 3');

  await click(vasco, 'Let it go ahead: Stock shows what is on order');
  await type(vasco, 'A word to Jonas Peck, on their thread (may stay empty)', 'Luís begins tomorrow.');
  await vasco.reload();
  await click(vasco, 'Let it go ahead: Stock shows what is on order');
  await click(vasco, 'Let it go ahead');
  await see(vasco, '2 large requests wait');
  await see(jonas, 'Luís begins tomorrow.');
  await see(jonas, /Its turn\s+done/);
  expect(await listBarriers(jonas)).toEqual([]);
});

test('someone says when they are away, and who decides meanwhile decides in their place', async () => {
  const olav = await browser.open('ana', '/away');
  await see(olav, 'When I am away');
  const today = await olav.evaluate(() => new Date().toISOString().slice(0, 10));
  await click(olav, 'Set it');
  await see(olav, 'This is needed.');
  await setField(olav, 'First day away', '2026-11-01');
  await setField(olav, 'Last day away', today);
  await type(olav, 'Who decides in your place?', 'Graça');
  await olav.locator('::-p-text(Graça Pinheiro, Regional manager)').click();
  await click(olav, 'Set it');
  await see(olav, 'Graça Pinheiro decides in your place');
  expect(await listBarriers(olav)).toEqual([]);
});

test('the plan is seen in time, also in the dark; a step is left out with a reason', async () => {
  const bia = await browser.open('bia', '/desk/mine', { isDark: true });
  await bia.locator('::-p-text(Lena Storm moves)').click();
  await bia.locator('::-p-text(see it in time)').click();
  await see(bia, 'promise');
  await see(bia, 'decides the date');
  expect(await listBarriers(bia)).toEqual([]);
  await bia.locator('::-p-text(Bridge tablet handed over)').click();
  await click(bia, 'More for Bridge tablet handed over');
  await click(bia, 'Leave out', 'menuitem');
  await type(bia, 'Why is it left out?', 'She has one already.');
  await click(bia, 'Leave out');
  await see(bia, 'left out: She has one already.');
});
