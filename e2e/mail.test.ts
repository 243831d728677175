import { click, listBarriers, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Mail as its readers have it: in a mail program, and on the page that accounts for it; in the real interface. */
const { browser } = demoSuite('mail');

test('someone decides in their mail program, a new mail becomes a ticket, and both are accounted for', async () => {
  const ana = await browser.open('ana', '/mailbox');
  await see(ana, 'Please decide');
  await ana.locator('ul button').click();
  await see(ana, 'Please write above this line');
  await click(ana, 'Answer …');
  const text = await ana.$eval('textarea', (area) => area.value);
  await type(ana, 'Text', `Yes, thanks.${text}`);
  expect(await listBarriers(ana)).toEqual([]);
  await click(ana, 'Send');
  await see(ana, 'Sent.');

  const tomas = await browser.open('tomas', '/mailbox');
  await click(tomas, 'New mail …');
  await type(tomas, 'Subject', 'The lamp over gate 2 is out');
  await type(tomas, 'Text', 'Since this morning.');
  await tomas.reload();
  await click(tomas, 'New mail …');
  // A reload loses nothing.
  expect(await tomas.$eval('textarea', (area) => area.value)).toBe('Since this morning.');
  await click(tomas, 'Send');
  await see(tomas, 'The lamp over gate 2 is out');

  const helder = await browser.open('helder', '/workshop/mail');
  await see(helder, 'was a decision');
  await see(helder, 'became a ticket');
  expect(await listBarriers(helder)).toEqual([]);
  await click(helder, 'It is done');
  await type(helder, 'Text, en', 'Done, {name}. {words}');
  await see(helder, 'Done, Ana Lobo. Fits, and we have the money.');
  expect(await listBarriers(helder)).toEqual([]);
  await click(helder, 'Save');
  await see(helder, 'written anew');
});

test('mail in the dark has no barriers', async () => {
  for (const [person, address, words] of [
    ['ana', '/mailbox', 'Mailbox of'],
    ['helder', '/workshop/mail', 'What went out'],
  ] as const) {
    const page = await browser.open(person, address, { isDark: true });
    await see(page, words);
    expect(await listBarriers(page)).toEqual([]);
  }
});
