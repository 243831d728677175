import type { Page } from 'puppeteer-core';
import { GIVEN_BOARDS } from '../core/measures';
import { click, clickThat, find, hearMoving, listBarriersInBoth, see } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Boards of figures in the real interface: looked at, narrowed, looked behind, made one’s own and put in order. */
const { browser } = demoSuite('boards');

/** Waits until every chart has its figures. */
const drawn = (page: Page): Promise<unknown> =>
  page.waitForFunction(() => {
    const cards = [...document.querySelectorAll('main section, section[aria-label]')];
    return (
      cards.length > 0 && cards.every((card) => card.querySelector('svg, ul, table, button, p') !== null)
    );
  });
const titles = (page: Page): Promise<string[]> =>
  page.$$eval('section[aria-label] > header > h2', (all) => all.map((each) => each.textContent));

test('the given boards can all be looked at, in both themes', async () => {
  const page = await browser.open('marta', '/measures');
  await see(page, 'The desk today');
  expect(await listBarriersInBoth(page)).toEqual([]);
  for (const { id, charts } of GIVEN_BOARDS) {
    await page.goto(new URL(`/measures/boards/${id}`, page.url()).href);
    await see(page, /Current at/);
    await drawn(page);
    expect(await titles(page)).toHaveLength(charts.length);
    expect([id, await page.$$('[role=alert]')]).toEqual([id, []]);
  }
  await see(page, /in a row on one side of the mean|Nothing unusual|lies beyond|near the same limit/);
  await see(page, /Half are done within/);
  await page.waitForSelector('[role=img] svg');
  expect(await listBarriersInBoth(page)).toEqual([]);
});

test('a choice narrows the other charts, and each figure opens what it counts', async () => {
  const page = await browser.open('marta', '/measures/boards/given-month');
  await see(page, 'Printing does not work');
  await drawn(page);
  const opened = (): Promise<number> =>
    page.$eval('section[aria-label] > button', (button) => Number(button.textContent.replace(/\D/g, '')));
  const before = await opened();
  await clickThat(page, 'li > button', 'Printing does not work');
  await see(page, 'service: Printing does not work');
  await page.waitForFunction(
    (count) =>
      Number(document.querySelector('section[aria-label] > button')!.textContent.replace(/\D/g, '')) < count,
    {},
    before,
  );
  const narrowed = await opened();
  // The chart in which it was chosen goes on listing the others.
  await see(page, 'Doors, keys, heating and light');
  await page.locator('section[aria-label] > button').click();
  await find(page, 'What it counts', 'dialog');
  await page.waitForSelector('[role=dialog] tbody tr');
  expect(await page.$$eval('[role=dialog] tbody tr', (rows) => rows.length)).toBe(Math.min(200, narrowed));
  expect(await listBarriersInBoth(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.reload();
  await see(page, 'service: Printing does not work');
  await click(page, 'Take away: service: Printing does not work');
  await page.waitForFunction(
    (count) =>
      Number(document.querySelector('section[aria-label] > button')!.textContent.replace(/\D/g, '')) ===
      count,
    {},
    before,
  );
});

test('a given board is made one’s own, put in order by keys, and found again', async () => {
  const page = await browser.open('marta', '/measures/boards/given-breaking');
  await see(page, 'When incidents come');
  await click(page, 'Make it mine');
  await see(page, 'Shared with');
  expect(await listBarriersInBoth(page)).toEqual([]);
  const first = await titles(page);
  const grip = await find(page, first[0]!, 'button');
  await grip.focus();
  await page.keyboard.press('Space');
  await hearMoving(page, /1/);
  await page.keyboard.press('ArrowRight');
  await hearMoving(page, /2/);
  await page.keyboard.press('Space');
  await page.waitForFunction(
    (name) => document.querySelectorAll('section[aria-label] > header > h2')[1]?.textContent === name,
    {},
    first[0]!,
  );
  await click(page, 'Done');
  await see(page, 'Saved.');
  await page.goto(new URL('/measures/boards', page.url()).href);
  await clickThat(page, 'a', 'What keeps breaking, mine');
  await see(page, 'When incidents come');
  await drawn(page);
  expect((await titles(page)).slice(0, 2)).toEqual([first[1], first[0]]);
  await click(page, 'On the wall');
  await find(page, 'Leave the wall');
  expect(await page.$('nav')).not.toBeNull();
});
