import type { Page } from 'puppeteer-core';
import { click, clickThat, find, listBarriersInBoth, see, setField, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** The Estate: from a new thing to whoever has it, on a ticket and on the map, in the real interface. */
const { browser } = demoSuite('estate');

/** Types into a field in which one of those found is chosen, and takes the first that has these words. */
async function choose(page: Page, label: string, typed: string, option: string): Promise<void> {
  await type(page, label, typed);
  await clickThat(page, '[role=option]', option);
}

test('a thing is made, handed over, confirmed by its holder, reported broken, and seen beside the ticket', async () => {
  const marta = await browser.open('marta', '/estate');
  await see(marta, 'Worth a look:');
  expect(await listBarriersInBoth(marta)).toEqual([]);
  await click(marta, 'New thing');
  const dialog = await find(marta, 'New thing', 'dialog');
  await click(dialog, 'Kind', 'combobox');
  await clickThat(marta, '[role=option]', 'Laptop');
  await setField(marta, 'Name', 'Laptop L-7777');
  await setField(marta, 'Tag', 'L-7777');
  expect(await listBarriersInBoth(marta)).toEqual([]);
  await click(marta, 'Save');
  await see(marta, 'It hangs on nothing and nothing on it, as far as is known.');
  expect(await listBarriersInBoth(marta)).toEqual([]);
  await click(marta, 'Hand over');
  await find(marta, 'Hand over: Laptop L-7777', 'dialog');
  await choose(marta, 'Who gets it', 'Tomás Veiga', 'Tomás Veiga');
  await clickThat(marta, '[role=dialog] button[type=submit]', 'Hand over');
  await see(marta, 'they have not said yet that they have it');

  const tomas = await browser.open('tomas', '/ask');
  await see(tomas, 'Do you have Laptop L-7777?');
  expect(await listBarriersInBoth(tomas)).toEqual([]);
  await click(tomas, 'Yes, I have it');
  await see(tomas, 'Noted, thank you.');
  // The page of whoever keeps it hears of it by itself.
  await see(marta, /They said today .* that they have it\./);
  await click(tomas, 'What you have: 3 things', 'link');
  await see(tomas, 'Laptop L-7777');
  expect(await listBarriersInBoth(tomas)).toEqual([]);
  await (
    await find(tomas, 'Laptop L-7777', 'heading')
  ).evaluate((heading) => {
    const row = (heading as HTMLElement).closest('li')!;
    [...row.querySelectorAll('button')].find((each) => each.textContent === 'It is broken')!.click();
  });
  await type(tomas, 'What happened to Laptop L-7777?', 'The lid does not close');
  await click(tomas, 'Send');
  await see(tomas, /Sent\. It is number \d+\./);

  await see(marta, 'Laptop L-7777: The lid does not close');
  await clickThat(marta, 'a', 'Laptop L-7777: The lid does not close');
  await see(marta, 'Which thing is it about?');
  const beside = await marta.waitForSelector('section[aria-labelledby=things-of] li');
  expect(await beside!.evaluate((each) => each.textContent)).toMatch(/Laptop L-7777.*Tomás Veiga/);
  await choose(marta, 'Which thing is it about?', 'power of the server', 'Power of the server room');
  await see(marta, /things hang on it alone/);
  await see(marta, 'You named a thing: Power of the server room');
  expect(await listBarriersInBoth(marta)).toEqual([]);
});

test('what falls is said before it fails, drawn and listed; a failure shows everywhere at once', async () => {
  const helder = await browser.open('helder', '/estate/power');
  await see(helder, /People will notice: .*Boarding/);
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'Map', 'link');
  await see(helder, 'The same as a list');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  // Pointing at the one in the middle reckons what falls, in a worker.
  const map = await helder.waitForSelector('canvas');
  await helder.waitForFunction(() => document.querySelector('canvas')!.width > 300);
  const isReckoned = () => helder.evaluate(() => /go down,/.test(document.body.innerText));
  const box = (await map!.boundingBox())!;
  // It stands lowest, in the middle: the pointer goes up until it is met.
  for (let y = box.height - 4; y > 0 && !(await isReckoned()); y -= 12)
    await helder.mouse.move(box.x + box.width / 2, box.y + y);
  await see(helder, /: \d+ go down, \d+ have less behind them/);
  const watching = await browser.open('helder', '/estate/mail');
  await see(watching, 'Each of these takes it down alone');
  await helder.goto(helder.url().replace(/\/estate\/.*/, '/estate/power'));
  await click(helder, 'Send to repair');
  await see(helder, 'Back from repair');
  await see(watching, 'Down: what it needs is not there.');
  await click(helder, 'Back from repair');
  await watching.waitForFunction(() => !document.body.innerText.includes('Down: what it needs'));
});

test('stock is taken, models are compared, kinds are made; each page can be used by everyone', async () => {
  const helder = await browser.open('helder', '/estate/stock');
  await click(helder, 'Site', 'combobox');
  await click(helder, 'Port Alder', 'option');
  await type(helder, 'What was scanned, one a line', 'S-ALD11\nZZ-1');
  await click(helder, 'Compare');
  await see(helder, /Missing \(\d+\)/);
  await see(helder, 'Known to nobody (1)');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  for (const [address, sees] of [
    ['/estate/figures', 'Which models break'],
    ['/workshop/things', 'New kind'],
    ['/workshop/things/network', 'What is asked of each'],
  ] as const) {
    await helder.goto(helder.url().replace(/\/(estate|workshop)\/.*/, address));
    await see(helder, sees);
    expect(await listBarriersInBoth(helder)).toEqual([]);
  }
  await see(helder, 'Circuit number');
  expect(await helder.evaluate(() => document.body.innerText)).not.toContain('services/form');
});

test('a code on a thing leads whoever works at the Desk to its page, and anyone else to what they have', async () => {
  const marta = await browser.open('marta', '/t/laptop-tomas');
  await see(marta, 'What happened');
  expect(marta.url()).toContain('/estate/laptop-tomas');
  const tomas = await browser.open('tomas', '/t/laptop-tomas');
  await see(tomas, 'What you have');
  await click(marta, 'Code to stick on it');
  await find(marta, 'Code to stick on it', 'dialog');
  await marta.waitForSelector('[role=img][aria-label^="Code that opens"] svg');
});
