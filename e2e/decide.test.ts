import { click, listBarriers, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Deciding, with what may come in between, and asking for the same again; in the real interface. */
const { app, browser } = demoSuite('decide');

const SCANNER = 'Hand scanner for gate 2';

test('a question comes first, what was answered changes, and what then stands is decided with another', async () => {
  const ana = await browser.open('ana', '/ask');
  await see(ana, SCANNER);
  await see(ana, /First day\s+\w{3}, \d+ \w+ 2026/);
  const ask = `[aria-label="${SCANNER}"]`;
  await ana.locator(`${ask} ::-p-text(Ask first …)`).click();
  await type(ana, 'What would you like to know from Tomás Veiga?', 'Is one enough?');
  await click(ana, 'Ask');
  await see(ana, 'Tomás Veiga has not answered yet.');

  const tomas = await browser.open('tomas', '/ask');
  await tomas.locator(`::-p-text(${SCANNER})`).click();
  await see(tomas, 'Is one enough?');
  await click(tomas, 'Change what was answered');
  await see(tomas, 'Whoever agreed to this, or is being asked, is asked anew');
  await type(tomas, 'How many? needed', '3');
  expect(await listBarriers(tomas)).toEqual([]);
  await click(tomas, 'Save');
  await see(tomas, 'changed what was answered: How many?');

  await see(ana, 'Changed: How many?');
  await click(ana, `Choose “${SCANNER}”`, 'checkbox');
  await ana.locator('[aria-label^="Choose “Bridge tablet"]').click();
  expect(await listBarriers(ana)).toEqual([]);
  await click(ana, 'Yes to all 2');
  await see(ana, 'You agreed to 2.');
  await ana.waitForFunction((label) => document.querySelector(label) === null, {}, ask);
  await see(tomas, 'Granted, it goes on');
});

test('the same is asked for again: what was answered stands there already', async () => {
  const tomas = await browser.open('tomas', '/ask');
  await tomas.locator(`::-p-text(${SCANNER})`).click();
  await tomas.locator('::-p-text(Ask for the same again)').click();
  await see(tomas, 'A scanner for a new gate');
  await tomas.waitForFunction(
    (title) => [...document.querySelectorAll('input')].some(({ value }) => value === title),
    {},
    SCANNER,
  );
  await click(tomas, 'Send to Onboard systems');
  await see(tomas, 'Sent. It is number');
});

test('subjects are set by the administrator, in any depth', async () => {
  const helder = await browser.open('helder', '/workshop/services');
  await click(helder, 'Subjects …');
  await see(helder, 'The subjects of the catalogue');
  await click(helder, 'One more');
  await type(helder, 'Name, en: ', 'Lost and found');
  await type(helder, 'Name, pt: Lost and found', 'Perdidos e achados');
  await helder.locator('select[aria-label="Under: Lost and found"]').fill('fleet');
  expect(await listBarriers(helder)).toEqual([]);
  await click(helder, 'Save');
  await helder.waitForFunction(() => !document.body.innerText.includes('The subjects of the catalogue'));
  const { tables } = app.listo.db;
  expect(await tables.categories.find({ parentId: 'fleet' })).toContainEqual(
    expect.objectContaining({ name: { en: 'Lost and found', pt: 'Perdidos e achados' } }),
  );
});

test('someone leaves: what waited for their decision is with the next one up at once, and says why', async () => {
  const helge = await browser.open('helge', '/ask');
  await see(helge, 'What do you need, Helge?');
  const helder = await browser.open('helder', '/workshop/leaving');
  await type(helder, 'Find someone', 'Ana Lobo');
  await helder.locator('::-p-text(Head of terminals)').click();
  await see(helder, 'decisions wait for them');
  await click(helder, 'Ana Lobo leaves …');
  expect(await listBarriers(helder)).toEqual([]);
  await click(helder, 'Pass everything on');
  await see(helder, /Ana Lobo\s+left on/);
  await helder.waitForFunction(() => !document.body.innerText.includes('decisions wait for them'));
  await see(helge, 'because you are the next one up');
});
