import { click, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** A conversation with the assistant, from words to an answer or a ticket; and those who teach it. */
const { app, browser } = demoSuite('assistant');

test('what is said in own words is understood, answered, and ends without a ticket', async () => {
  const page = await browser.open('tomas', '/ask/assistant');
  await see(page, 'Good day, Tomás');
  await type(page, 'Write here', 'the gate wont take the year tickets');
  await click(page, 'Send');
  await click(page, 'A season pass shows as unknown');
  await see(page, 'Fetch now');
  expect(await listBarriersInBoth(page)).toEqual([]);
  await page.reload();
  await see(page, 'Fetch now');
  await click(page, 'That was it');
  await see(page, 'Nobody else has to do anything');
});

test('what it did not understand comes to a team that one chooses, as a ticket with the conversation', async () => {
  const page = await browser.open('ines', '/ask/assistant');
  await type(page, 'Write here', 'zzz qqq');
  await click(page, 'Send');
  await see(page, 'in other words');
  await type(page, 'Write here', 'blorb');
  await click(page, 'Send');
  await click(page, 'Not for me');
  await see(page, 'Who should have this?');
  await page.locator('::-p-text(Service desk)').click();
  await see(page, 'A person takes over');
  await page.locator('a[href^="/ask/tickets/"]').click();
  await see(page, '› zzz qqq');
});

test('the lead sees how sure it is, tries words, and adds a matter that is understood at once', async () => {
  const rui = await browser.open('rui', '/workshop/assistant');
  await type(rui, 'Try words on it', 'card reader of the machine hangs');
  await see(rui, /It would (ask|offer)/);
  await click(rui, 'Add a matter');
  await type(rui, 'What it is called, en', 'Borrowing an umbrella');
  await type(
    rui,
    'How people put it, a line each, en',
    'borrow an umbrella\numbrella for the quay\nwhere are the umbrellas\nI need an umbrella',
  );
  await rui.select('select:has(option[value="other"])', 'other');
  await click(rui, 'Save');
  await see(rui, 'is saved and being learned');
  await type(rui, 'Try words on it', 'an umbrella please');
  await see(rui, /Borrowing an umbrella\s+\d+ %/);
  // A whole conversation runs beside it, with the steps as they are written.
  await click(rui, 'Begin at this matter');
  await see(rui, 'It ends here: a ticket would be written.');
  await click(rui, 'Begin anew');
  await type(rui, 'Write here', 'may I borrow an umbrella');
  await rui.keyboard.press('Enter');
  await see(rui, 'may I borrow an umbrella');
  expect(await listBarriersInBoth(rui)).toEqual([]);
  await rui.goto(`${app.url}/workshop/assistant?view=sure`);
  await see(rui, 'Wanted sureness');
  await rui.goto(`${app.url}/workshop/assistant?view=figures`);
  await see(rui, 'First words');
});
