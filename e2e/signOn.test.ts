import { Secret, TOTP } from 'otpauth';
import { hashPassword } from '../server/sessions/sessions';
import { click, clickThat, find, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Signing in at the organisation's provider, and with a code beside the password, in the real interface. */
const { app, browser } = demoSuite('sign_on');

const codeOf = (secret: string, now: number): string =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: now });

test('one signs in at the provider, comes back to the page one wanted, and leaves there too', async () => {
  const { name } = (await app.listo.db.tables.people.findOne({ id: 'tomas' }))!;
  const page = await browser.open(null, '/ask/tickets');
  await see(page, 'Sign in with Solvarra account');
  expect(await listBarriersInBoth(page)).toEqual([]);
  await click(page, 'Sign in with Solvarra account', 'link');
  await see(page, 'Who are you?');
  await clickThat(page, 'button', name);
  await page.waitForFunction(() => location.pathname === '/ask/tickets');
  await clickThat(page, 'button', `You: ${name}`);
  await (await find(page, 'Sign out', 'menuitem')).click();
  await see(page, 'Sign out here too?');
  await click(page, 'Sign out');
  await see(page, 'Who are you today?');
});

test('who says no at the provider reads so, and may go another way', async () => {
  const page = await browser.open(null, '/ask?signOn=refusedThere');
  await see(page, 'You did not sign in there.');
  expect(await listBarriersInBoth(page)).toEqual([]);
});

test('an administrator asks for a code; who works in a team sets one and signs in with it', async () => {
  const passwordHash = await hashPassword('correct horse battery');
  await app.listo.db.tables.people.update({ id: 'bia' }, { passwordHash });
  const helder = await browser.open('helder', '/workshop/signOn');
  await see(helder, 'Solvarra account');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'Of whom a code is asked beside the password', 'combobox');
  await (await find(helder, 'all who work in a team, and administrators', 'option')).click();
  await see(helder, 'How people sign in is changed.');
  await helder.goto(`${app.url}/workshop/signOn/solvarra`);
  await click(helder, 'Ask it what it says of itself');
  await see(helder, /signs people out/);
  expect(await listBarriersInBoth(helder)).toEqual([]);

  const { email } = (await app.listo.db.tables.people.findOne({ id: 'bia' }))!;
  const bia = await browser.open(null, '/desk');
  const signIn = async (): Promise<void> => {
    await type(bia, 'Mail address', email);
    await type(bia, 'Password', 'correct horse battery');
    await click(bia, 'Sign in');
  };
  await signIn();
  await see(bia, 'A second factor is asked of you');
  await see(bia, 'Or type this into it:');
  expect(await listBarriersInBoth(bia)).toEqual([]);
  const secret = (await bia.$eval('code', (code) => code.textContent)).replaceAll(' ', '');
  await type(bia, 'The code that it shows now', codeOf(secret, app.listo.clock.now()));
  await click(bia, 'Set');
  await see(bia, 'Spare codes, for when your phone is lost.');
  expect(await listBarriersInBoth(bia)).toEqual([]);
  const spare = await bia.$eval('li', (item) => item.textContent);
  await click(bia, 'I have kept them');
  await see(bia, 'All of them');

  // At another place a code is asked for, and a spare one does.
  await bia.evaluate(() => fetch('/api/v1/session', { method: 'DELETE' }));
  await bia.goto(`${app.url}/desk`);
  await signIn();
  await see(bia, 'The six digits that your program for codes shows now');
  expect(await listBarriersInBoth(bia)).toEqual([]);
  await type(bia, 'Code', spare);
  await click(bia, 'Sign in');
  await see(bia, 'All of them');
});
