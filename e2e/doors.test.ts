import { click, clickThat, find, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Other programs and the record of what was done, in the real interface. */
const { app, browser } = demoSuite('doors');

const callWith = (key: string, path: string): Promise<Response> =>
  fetch(`${app.url}/api/v1${path}`, { headers: { Authorization: `Bearer ${key}` } });

test('an administrator lets a program in, hands over its key, sees it used and takes it back', async () => {
  const helder = await browser.open('helder', '/workshop/programs');
  await see(helder, 'Gate signs');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'New program', 'link');
  await type(helder, 'Name', 'Car park');
  await type(helder, 'What it is for', 'Knows who works here.');
  await click(helder, 'Save');
  await see(helder, 'No key yet: nothing gets in.');
  await click(helder, 'Make a key');
  await see(helder, 'Shown this once');
  const key = await helder.$eval('[data-testid=secret]', (secret) => secret.textContent);
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'I have it');
  const answer = await callWith(key, '/program');
  expect([answer.status, answer.headers.get('RateLimit')]).toEqual([200, expect.stringContaining('r=119')]);
  expect(await answer.json()).toMatchObject({ name: 'Car park', mayChange: false });
  await helder.reload();
  await see(helder, /last used today .* from/);
  await clickThat(helder, 'button[aria-label^="Take back the key"]', 'Take back');
  await see(helder, /works no longer/);
  expect((await callWith(key, '/program')).status).toBe(401);
});

test('what a program is told is tried before it is switched on; an address that leads nowhere says so', async () => {
  const helder = await browser.open('helder', '/workshop/programs/program-payroll');
  await see(helder, 'An example has to be taken first.');
  await click(helder, 'Send an example to Who begins');
  await see(helder, /Not taken/);
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'Change Who begins');
  await find(helder, 'What Who begins is told', 'dialog');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await helder.goto(`${app.url}/workshop/programs/calls`);
  await see(helder, 'https://payroll.solvarra.example/listo');
  expect(await listBarriersInBoth(helder)).toEqual([]);
});

test('the record tells what was done, holds what was sealed, and shows a ticket as it was', async () => {
  const helder = await browser.open('helder', '/workshop/records');
  await see(helder, /Helder Quist signed in from/);
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await helder.locator('::-p-text(Seals)').click();
  await helder.locator('button[aria-label^="Check the seal"]').click();
  await see(helder, 'Unchanged.');
  await clickThat(helder, 'label', 'tickets');
  await helder.locator('a[aria-label$="as it was then"]').click();
  await see(helder, 'What had happened by then');
  expect(await listBarriersInBoth(helder)).toEqual([]);
});

test('how it runs is said in words', async () => {
  const helder = await browser.open('helder', '/workshop/running');
  await see(helder, 'The database is a single server.');
  await see(helder, 'Sessions that nobody used: after 30 days');
  expect(await listBarriersInBoth(helder)).toEqual([]);
});

test('the interface’s own pages show every call, with examples as code, and one can be tried', async () => {
  const helder = await browser.open('helder', '/interface#/session/session.get');
  // The page moves for long while it unfolds every call; the button is there before it stands still.
  const button = await helder.waitForSelector('button.execute', { timeout: 90_000 });
  await button!.evaluate((element) => (element as HTMLElement).click());
  await see(helder, 'Python');
  await see(helder, /"name": "Helder Quist"/);
});
