import { click, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Live conversations in the real interface, between an employee and agents side by side. */
const { app, browser } = demoSuite('talk');

test('an employee asks for a person, an agent takes it, helps, makes a ticket of it, and it is rated', async () => {
  const bia = await browser.open('bia', '/desk/conversations');
  await see(bia, 'Choose one on the left');
  const tomas = await browser.open('tomas', '/ask');
  await click(tomas, 'Talk to a person', 'link');
  await see(tomas, 'Gates, kiosks and on board');
  await tomas.locator('::-p-text(Anything else)').click();
  await type(tomas, 'What is it?', 'My password for the roster is not taken');
  expect(await listBarriersInBoth(tomas)).toEqual([]);
  await tomas.reload();
  await see(tomas, 'Anything else');
  // A reload loses nothing.
  await click(tomas, 'Ask for a person');
  await see(tomas, 'You are number 1 in the line: ');
  await see(bia, 'Offered to you');
  await see(bia, 'My password for the roster');
  expect(await listBarriersInBoth(bia)).toEqual([]);
  await click(bia, 'Take it');
  await see(tomas, 'You are talking to Bia Rocha.');
  await see(bia, 'Open tickets');
  await bia.locator('textarea[aria-label="To Tomás Veiga"]').fill('Good day, which ship are you on?');
  await bia.keyboard.press('Enter');
  await see(tomas, 'Good day, which ship are you on?');
  await type(tomas, 'Write here', 'None, I am at the gate');
  await see(bia, 'Tomás Veiga is writing');
  await tomas.keyboard.press('Enter');
  await see(bia, 'None, I am at the gate');
  await bia.locator('::-p-text(Among agents)').click();
  await type(bia, 'Tomás Veiga does not see this', 'He asked that last week too');
  await bia.keyboard.press('Enter');
  await see(bia, 'He asked that last week too');
  await type(bia, 'Title', 'Password for the roster');
  await click(bia, 'Make a ticket');
  await see(tomas, 'Written down as');
  expect(await tomas.evaluate(() => document.body.innerText)).not.toContain('last week');
  expect(await listBarriersInBoth(bia)).toEqual([]);
  await click(tomas, 'End …');
  await click(tomas, 'End it');
  await see(tomas, 'You ended it.');
  await tomas.locator('::-p-text(Very good)').click();
  await see(tomas, 'Thank you.');
  await click(tomas, 'Come back to it');
  await see(tomas, 'You are talking to Bia Rocha.');
  expect(await listBarriersInBoth(tomas)).toEqual([]);
});

test('handing over: the other reads first, takes it, and the employee is told', async () => {
  const bia = await browser.open('bia', '/desk/conversations');
  const lena = await browser.open('lena', '/ask/person');
  await see(lena, 'Anything else');
  await lena.locator('::-p-text(Anything else)').click();
  await type(lena, 'What is it?', 'The gate at Ombra');
  await click(lena, 'Ask for a person');
  await click(bia, 'Take it');
  await see(bia, 'Hand over …');
  await click(bia, 'Hand over …');
  // Who is there comes a moment after the form.
  await bia.waitForSelector('[role="dialog"] option[value="agent:rui"]');
  await bia.select('[role="dialog"] select', 'agent:rui');
  await type(bia, 'Why, in a word', 'It is the reader');
  await bia.locator('[role="dialog"] button[type="submit"]').click();
  await see(lena, 'Bia Rocha asks Rui Bastos to take over.');
  const rui = await browser.open('rui', '/desk/today');
  await click(rui, '1 conversation offered', 'link');
  await click(rui, 'Read it first', 'link');
  await see(rui, 'Bia Rocha hands it over: It is the reader');
  await rui.locator('header ::-p-aria([name="Take it"][role="button"])').click();
  await see(lena, 'You are talking to Rui Bastos.');
});

test('the lead sees who does the work; lines are set up in the Workshop', async () => {
  const marta = await browser.open('marta', '/desk/conversations/overview');
  await see(marta, 'Lines and agents, now');
  await see(marta, 'Bia Rocha');
  expect(await listBarriersInBoth(marta)).toEqual([]);
  await marta.goto(`${app.url}/workshop/lines`);
  await see(marta, 'The lines in which employees wait');
  await type(marta, 'Ask after so many minutes of silence', '7');
  expect(await listBarriersInBoth(marta)).toEqual([]);
});
