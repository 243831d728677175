import type { Page } from 'puppeteer-core';
import { click, listBarriersInBoth, see, type } from './harness/browser';
import { demoSuite } from './harness/suite';

/** Words on a ticket: calling someone in, checklists, pictures, other tickets, and seeing that someone writes. */
let number: number;
const { app, browser } = demoSuite('words');
beforeAll(async () => {
  const rows = await app.listo.db.select<{ number: number }>(
    "SELECT number FROM tickets WHERE title = 'Kiosk 3 frozen on payment' ORDER BY number DESC LIMIT 1",
  );
  number = rows[0]!.number;
});

const NOTE = 'A note that only the team reads';
const openTicket = async (person: string): Promise<Page> => {
  const page = await browser.open(person, `/desk/mine/${number}`);
  await see(page, 'What happens next');
  return page;
};

test('someone is called in by a few letters and sees where', async () => {
  const [rui, hanna] = [await openTicket('rui'), await openTicket('hanna')];
  await click(rui, NOTE, '');
  await rui.keyboard.type('Please look, @Han');
  await see(hanna, 'Rui Bastos is writing …');
  await rui.waitForSelector('[role="option"][data-combobox-selected]');
  await rui.keyboard.press('Enter');
  await rui.keyboard.type('- now');
  await click(rui, 'Keep in the team');
  await see(hanna, 'Please look, @Hanna Vik - now');
  await hanna.waitForFunction(() => !document.body.innerText.includes('is writing'));
  await hanna.locator('button[aria-label^="What you were told"]').click();
  await see(hanna, 'calls you in');
});

test('a checklist is worked in place by either side of the team', async () => {
  const [rui, hanna] = [await openTicket('rui'), await openTicket('hanna')];
  await click(rui, NOTE, '');
  await click(rui, 'Checklist');
  await rui.keyboard.type('restart');
  await rui.keyboard.press('Enter');
  await click(rui, 'Checklist');
  await rui.keyboard.type('test a sale');
  await click(rui, 'Keep in the team');
  await click(hanna, 'restart', 'checkbox');
  await see(rui, 'Hanna Vik ticked off “restart”');
  await rui.waitForSelector('input[aria-label="restart"]:checked');
});

test('a pasted picture stands in the words, opens large, and another ticket says what it is', async () => {
  const rui = await openTicket('rui');
  await type(rui, NOTE, `Like #${number}, **see**: `);
  await rui.$eval(`::-p-aria([name="${NOTE}"])`, async (field) => {
    const canvas = document.createElement('canvas');
    Object.assign(canvas, { width: 320, height: 200 });
    const draw = canvas.getContext('2d')!;
    draw.fillStyle = '#0E6A5E';
    draw.fillRect(0, 0, 320, 200);
    const blob = await new Promise<Blob>((resolve) => canvas.toBlob((made) => resolve(made!)));
    const data = new DataTransfer();
    data.items.add(new File([blob], 'screen.png', { type: 'image/png' }));
    field.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await rui.waitForFunction(() =>
    [...document.querySelectorAll('textarea')].some(({ value }) => value.includes('![screen.png](file:')),
  );
  await click(rui, 'Keep in the team');
  await see(rui, `#${number} Kiosk 3 frozen on payment (in work)`);
  await rui.locator('button img[alt="screen.png"]').click();
  await rui.waitForSelector('[role="dialog"] img[alt="screen.png"]');
  await see(rui, 'Save “screen.png”');
  await rui.keyboard.press('Escape');
  await rui.waitForFunction(() => !document.querySelector('[role="dialog"]'));
  await rui.locator('::-p-text(more, and their tickets)').click();
  await rui.waitForSelector('section[aria-label="Who asked"] a[href^="mailto:"]');
  await rui.waitForSelector('section[aria-label="Who asked"] a[href^="/desk/everything/"]');
  expect(await listBarriersInBoth(rui)).toEqual([]);
});

test('a picture that is too large is refused in words, and what was written stays', async () => {
  const rui = await openTicket('rui');
  await type(rui, NOTE, 'This one: ');
  await rui.$eval(`::-p-aria([name="${NOTE}"])`, (field) => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array(40_000_000)], 'wall.png', { type: 'image/png' }));
    field.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await see(rui, 'wall.png: ');
  expect(
    await rui.$eval(`::-p-aria([name="${NOTE}"])`, (field) => (field as HTMLTextAreaElement).value),
  ).toBe('This one: ');
});
