import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { click, hearMoving, listBarriers, listBarriersInBoth, see, setField, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** A team administrator makes a service alone, and employees find, fill in and send it; in the real interface. */
const { browser } = demoSuite('services');
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'listo-form-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const choose = (page: Page, label: string, value: string) =>
  page.locator(`select[aria-label="${label}"]`).fill(value);

test('a service is begun from a ready set, written beside its picture, published, found and sent', async () => {
  const hanna = await browser.open('hanna', '/workshop/services');
  await click(hanna, 'New service …');
  await type(hanna, 'What employees read, in English', 'Chart table lamp');
  await type(hanna, 'The same in Portuguese', 'Candeeiro da mesa de cartas');
  await click(hanna, 'Begin');
  await see(hanna, 'draft, never published');
  await see(hanna, 'It has no description in one of the languages.');
  await type(hanna, 'In one plain sentence, en', 'Red light, for the night.');
  await type(hanna, 'In one plain sentence, pt', 'Luz vermelha, para a noite.');
  await choose(hanna, 'also …', 'onVessel');
  await see(hanna, 'everyone on a vessel');
  // Several things can be asked of people at once.
  await choose(hanna, 'also …', 'condition');
  await see(hanna, 'whoever fits:');
  await hanna.locator('select:has(option[value=""]:checked):has(option[value="vessel"])').fill('vessel');
  await hanna.locator('select:has(option[value="vessel"]:checked)').wait();
  await choose(hanna, 'Its sign', 'bolt');
  await type(hanna, 'Who answers for it', 'Helge');
  await hanna.locator('[role="option"]').click();
  await see(hanna, /Who answers for it: Helge/);
  // The picture beside it follows; its questions are answered as the employee will answer them.
  await see(hanna, 'What would you like to know?');
  await click(hanna, 'Change “What would you like to know?”');
  await type(hanna, 'The question, en', 'Where shall it hang?');
  await see(hanna, 'Where shall it hang? needed');
  await click(hanna, '+ ask something else');
  await click(hanna, 'yes or no', 'menuitem');
  await type(hanna, 'The question, en', 'Does it replace another?');
  await see(hanna, 'It has no words in one of the languages.');
  await type(hanna, 'The question, pt', 'Substitui outro?');
  await see(hanna, 'Nothing is in the way.');
  // A reload loses nothing: what is written is kept as it is typed.
  await hanna.reload();
  await see(hanna, 'Does it replace another?');
  await see(hanna, /Who answers for it: Helge \w/);
  expect(await listBarriers(hanna)).toEqual([]);
  await click(hanna, 'Publish');
  await see(hanna, 'Published. This is version 1.');

  const lena = await browser.open('lena', '/s/chart-table-lamp?place=Bridge');
  await see(lena, 'Where shall it hang?');
  await type(lena, 'In one line needed', 'A lamp for the night watch');
  await type(lena, 'Where shall it hang? needed', 'Over the chart table.');
  await lena.locator('::-p-text(Yes)').click();
  await click(lena, 'Send to Onboard systems');
  await see(lena, 'Sent. It is number');

  const tomas = await browser.open('tomas', '/s/chart-table-lamp');
  await see(tomas, 'Not for you');

  // A code that hangs somewhere counts for where it hangs, wherever else one belongs.
  await tomas.goto(new URL('/s/gate-broken?site=Ilha%20Curva&place=Gate%202', tomas.url()).href);
  await tomas.waitForFunction(() =>
    ['Ilha Curva', 'Gate 2'].every((fact) =>
      [...document.querySelectorAll('input')].some(({ value }) => value === fact),
    ),
  );
});

test('questions are put in order by keyboard, and a condition shows one only when it should', async () => {
  const helder = await browser.open('helder', '/workshop/services/laptop');
  await see(helder, 'Which one?');
  const rows = () =>
    helder.$$eval('[aria-label^="Change “"]', (buttons) => buttons.map(({ textContent }) => textContent));
  const before = await rows();
  await helder.focus('[aria-label="Move “What is it for?”"]');
  await helder.keyboard.press('Space');
  await hearMoving(helder, /place 4 of 4/);
  await helder.keyboard.press('ArrowUp');
  await hearMoving(helder, /Over place 3 of 4/);
  await helder.keyboard.press('Space');
  await helder.waitForFunction(
    (first) => document.querySelectorAll('[aria-label^="Change “"]')[3]?.textContent !== first,
    {},
    before[3]!,
  );
  expect((await rows()).indexOf('What is it for?')).toBe(before.indexOf('What is it for?') - 1);
  // In the picture the question about which laptop comes with the answer that it is a replacement.
  const isShown = () => helder.$('aside #field-thing').then((field) => field !== null);
  expect(await isShown()).toBe(false);
  await helder.locator('aside ::-p-text(A replacement)').click();
  await helder.waitForSelector('aside #field-thing');
});

test('a plan is drawn as a list and as a graph; a ring is found at once and cannot be published', async () => {
  const helder = await browser.open('helder', '/workshop/services/crew-transfer');
  await helder.waitForSelector('.react-flow__node');
  await click(helder, 'Change “Welcome at the base”');
  await click(helder, 'Only after', '');
  await helder.locator('[role="option"]::-p-text(Ask how it went)').click();
  await see(helder, 'These wait for each other in a ring.');
  const publish = await helder.$eval(
    '::-p-aria([name="Publish"][role="button"])',
    (button) => (button as HTMLButtonElement).disabled,
  );
  expect(publish).toBe(true);
  expect(await helder.$$('[data-bad]')).toHaveLength(2);
  await helder.reload();
  await see(helder, 'These wait for each other in a ring.');
  await click(helder, '…', 'button');
  await click(helder, 'Throw the draft away', 'menuitem');
  await click(helder, 'Throw the draft away');
  await see(helder, 'What is published is what you see.');
});

test('a form is taken in from a file, and a file that cannot be asked for takes in nothing', async () => {
  const helder = await browser.open('helder', '/workshop/services/report');
  await see(helder, 'Which figures?');
  const upload = async (schema: object): Promise<void> => {
    const file = path.join(folder, 'form.json');
    await writeFile(file, JSON.stringify(schema));
    const input = (await helder.$('input[type="file"][accept*="schema"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(file);
  };
  await upload({ type: 'object', properties: { a: { type: 'object' } } });
  await see(helder, 'Nothing was taken in: “type object” at /properties/a/type cannot be asked for');
  await upload({
    type: 'object',
    required: ['colour'],
    properties: { colour: { enum: ['red', 'blue'], title: 'Which colour?' } },
  });
  await see(helder, '1 question taken in.');
  await see(helder, 'Which colour?');
});

test('a service that is off says what its team says; a page of a form that is long comes after the other', async () => {
  const helder = await browser.open('helder', '/workshop/services/room');
  await click(helder, '+ ask something else');
  await click(helder, 'heading', 'menuitem');
  await type(helder, 'The question, en', 'And one more thing');
  await type(helder, 'The question, pt', 'E mais uma coisa');
  await helder.locator('::-p-text(What follows stands on a page of its own)').click();
  await see(helder, 'Nothing is in the way.');
  await click(helder, 'Publish');
  await see(helder, 'Published. This is version 2.');
  const tomas = await browser.open('tomas', '/ask/services/room');
  await type(tomas, 'In one line needed', 'Board room, Tuesday');
  await click(tomas, 'Next (2 of 2)');
  await see(tomas, 'And one more thing');
  // What is to be mended stands on the page before: one is led there.
  await click(tomas, 'Send to Terminal facilities');
  await see(tomas, 'On which day?');
  await see(tomas, 'One more look, please: 3 to mend.');
  await setField(tomas, 'On which day? needed', '2027-03-02');

  await click(helder, '…', 'button');
  await click(helder, 'The versions', 'menuitem');
  await see(helder, 'Changed: What they tell us');
  expect(await listBarriers(helder)).toEqual([]);
  await click(helder, 'Write it like version 1 again');
  await helder.waitForFunction(
    () =>
      document.querySelector('[role="dialog"]') === null &&
      !document.body.innerText.includes('And one more thing'),
  );

  await click(helder, '…', 'button');
  await click(helder, 'Switch off …', 'menuitem');
  await type(helder, 'What people read who come for it, en', 'Call reception until Friday.');
  await click(helder, 'Switch off');
  await see(helder, 'switched off');
  const ines = await browser.open('ines', '/ask/services/room');
  await see(ines, 'Call reception until Friday.');
});

test.each(['/workshop/services', '/workshop/services/crew-transfer'])(
  '%s has no barriers, also in the dark',
  async (address) => {
    const page = await browser.open('helder', address);
    await see(page, address.endsWith('services') ? 'A laptop' : 'people today');
    expect(await listBarriersInBoth(page)).toEqual([]);
  },
);
