import { forgetViewers } from '../server/sessions/viewer';
import { startDemoApp, type DemoApp } from './harness/app';
import { click, see, signIn, startBrowser, type, type TestBrowser } from './harness/browser';

let app: DemoApp;
let browser: TestBrowser;
beforeAll(async () => {
  app = await startDemoApp('faults');
  browser = await startBrowser(() => app.url);
}, 120_000);
afterAll(async () => {
  await browser.close();
  await app.end();
});

async function ticketOf(title: string): Promise<number> {
  const rows = await app.listo.db.select<{ number: number }>(
    'SELECT number FROM tickets WHERE title = :title ORDER BY number DESC',
    { title },
  );
  return rows[0]!.number;
}
const countMessages = async (text: string) =>
  (await app.listo.db.select('SELECT id FROM messages WHERE text = :text', { text })).length;

test('the database goes away while someone writes: the page says so, recovers, and the words are sent once', async () => {
  const number = await ticketOf('Kiosk 3 frozen on payment');
  const tomas = await browser.open('tomas', `/ask/tickets/${number}`);
  await see(tomas, 'Rui Bastos is on it');
  await type(tomas, 'Write to Rui Bastos', 'Kiosk 2 does it too now.');
  app.cutDatabase();
  await click(tomas, 'Send');
  await see(tomas, 'Listo cannot be reached right now');
  expect(await tomas.$eval('textarea', (area) => area.value)).toBe('Kiosk 2 does it too now.');
  app.restoreDatabase();
  await tomas.waitForFunction(() => !document.body.innerText.includes('Listo cannot be reached'), {
    timeout: 30_000,
  });
  await tomas.waitForFunction(() => document.querySelector('textarea')?.value === '', { timeout: 30_000 });
  await see(tomas, 'Kiosk 2 does it too now.');
  expect(await countMessages('Kiosk 2 does it too now.')).toBe(1);
});

test('the end of a session does not lose what was being written', async () => {
  const number = await ticketOf('Kiosk 3 frozen on payment');
  const tomas = await browser.open('tomas', `/ask/tickets/${number}`);
  await see(tomas, 'Rui Bastos is on it');
  await type(tomas, 'Write to Rui Bastos', 'Half a sentence that');
  await app.listo.db.tables.sessions.remove({ personId: 'tomas' });
  forgetViewers(app.listo);
  // The page may have heard of it already by what it asks for by itself; then nothing behind the question can be named.
  await tomas.$$eval('button', (buttons) => buttons.find((button) => button.innerText === 'Send')!.click());
  await see(tomas, 'Your session has ended.');
  await signIn(tomas.browserContext(), app.url, 'tomas');
  await tomas.goto(`${app.url}/ask/tickets/${number}`);
  await see(tomas, 'Rui Bastos is on it');
  expect(await tomas.$eval('textarea', (area) => area.value)).toBe('Half a sentence that');
});

test('two agents change the same ticket: the second sees the difference and chooses', async () => {
  const rows = await app.listo.db.select<{ number: number }>(
    "SELECT number FROM tickets WHERE teamId = 'onboard' AND state = 'received' AND assigneeId IS NULL LIMIT 1",
  );
  const { number } = rows[0]!;
  const rui = await browser.open('rui', `/desk/unassigned/${number}`);
  await see(rui, 'What happens next');
  const hanna = await browser.open('hanna', `/desk/unassigned/${number}`);
  await see(hanna, 'What happens next');
  // Hanna's page does not hear of the change before she acts.
  await hanna.setRequestInterception(true);
  hanna.on(
    'request',
    (request) =>
      void (request.url().includes('/tickets/') && request.method() === 'GET'
        ? request.abort()
        : request.continue()),
  );
  await click(rui, 'Take');
  await see(rui, 'Rui Bastos works on it');
  await click(hanna, 'Take');
  await see(hanna, 'Someone was quicker. Nothing has been overwritten.');
  await see(hanna, 'Now, by Rui Bastos');
  await click(hanna, 'Leave it as it is now');
  const [ticket] = await app.listo.db.tables.tickets.find({ number });
  expect(ticket!.assigneeId).toBe('rui');
});

test('what was typed as markup is shown, never run', async () => {
  const tomas = await browser.open('tomas', '/ask/services/kiosk');
  await see(tomas, 'In one line');
  const title = '<img src=x onerror="document.title=1"> \u202Eabc 🛳';
  await type(tomas, 'In one line needed', title);
  await tomas.locator('#field-kiosk').fill('3');
  await tomas.locator('#field-what').fill('<script>document.title = 1</script>');
  await click(tomas, 'Only me', 'radio');
  await click(tomas, 'Yes, it can wait', 'radio');
  await click(tomas, 'Send to Onboard systems');
  await see(tomas, 'Onboard systems have it');
  expect(await tomas.$eval('h1', (heading) => heading.textContent)).toBe(title);
  expect(await tomas.title()).toBe('Listo');
});

test('a page that is not there, and one that is not the viewer’s, each have a way on', async () => {
  const tomas = await browser.open('tomas', '/desk/nextUp');
  await see(tomas, 'There is nothing at this address');
  await tomas.locator('::-p-text(To the first page)').click();
  await see(tomas, 'What do you need, Tomás?');
});
