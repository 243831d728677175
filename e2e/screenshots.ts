import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { startDemoApp } from './harness/app';
import { see, startBrowser } from './harness/browser';

type Shot = {
  name: string;
  person: string | null;
  address: string;
  isDark?: boolean;
  isPortuguese?: boolean;
  width?: number;
  /** What the page is waited for by. */
  sees: string | RegExp;
  act?: (page: Page) => Promise<void>;
};

/** Opens a ticket of the list by a part of its row. */
const open =
  (part: string) =>
  async (page: Page): Promise<void> => {
    await page.locator(`::-p-text(${part})`).click();
    await see(page, 'why this time?');
    // Until formatting has come, its signs show.
    await page.waitForFunction(() => !document.body.innerText.includes('**'));
  };

/** An employee asks for a person, and the one whose page it is takes it. */
async function converse(page: Page): Promise<void> {
  const asks = async (path: string, body: object): Promise<{ id: string }> =>
    page.evaluate(
      async (address, sent) => {
        const answer = await fetch(`/api/v1${address}`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(sent),
        });
        return (await answer.json()) as { id: string };
      },
      path,
      body,
    );
  const as = (personId: string) => asks('/session/demo', { personId });
  await as('lena');
  const { id } = await asks('/conversations', {
    lineId: 'desk',
    words: 'The gate reader at Ombra takes no season passes since this morning',
  });
  await as('graca');
  await asks('/conversations', { lineId: 'desk', words: 'Where do I order a second screen?' });
  await as('bia');
  await asks(`/conversations/${id}/accept`, {});
  await asks(`/conversations/${id}/entries`, {
    text: 'Good day, Lena. Which of the two gates?',
    readBy: 'all',
  });
  await asks(`/conversations/${id}/entries`, {
    text: 'Rui had the same model on the bench yesterday',
    readBy: 'agents',
  });
  await as('lena');
  await asks(`/conversations/${id}/entries`, {
    text: 'The left one, with the green frame. There is a queue to the street.',
  });
  await as('bia');
  await page.goto(new URL(`/desk/conversations/${id}`, page.url()).href);
  await see(page, 'There is a queue');
  await see(page, 'What fits what is said');
}

/** The main views, as the README shows them. */
const SHOTS: Shot[] = [
  {
    name: 'ask',
    person: 'tomas',
    address: '/ask',
    sees: 'Kiosk 3',
    act: async (page) => {
      await page.locator('input[type="search"]').fill('gate scanner not readin');
      await see(page, 'When a gate scanner will not read');
    },
  },
  {
    name: 'assistant',
    person: 'tomas',
    address: '/ask/assistant',
    sees: 'Good day',
    act: async (page) => {
      await page
        .locator('::-p-aria([name="Write here"][role="textbox"])')
        .fill('the thing at the gate wont take the year tickets');
      await page.locator('::-p-aria([name="Send"][role="button"])').click();
      await page.locator('::-p-text(A season pass shows)').click();
      await see(page, 'That was it');
    },
  },
  {
    name: 'ask-service',
    person: 'tomas',
    address: '/ask/services/gate-scanner',
    sees: 'filled in for you',
  },
  {
    name: 'rooms',
    person: 'rui',
    address: '/rooms/onboard',
    sees: 'Open in this team',
    act: async (page) => {
      await page.locator('button[aria-label^="Choose what Hanna"]').click();
      await see(page, 'Make a ticket of this');
    },
  },
  {
    name: 'conversation',
    person: 'bia',
    address: '/desk/conversations',
    sees: 'Choose one on the left',
    act: async (page) => {
      await converse(page);
    },
  },
  {
    name: 'works',
    person: 'alda',
    address: '/estate/works',
    ...{ isDark: true, isPortuguese: true },
    sees: 'colisões neste período',
  },
  {
    name: 'notice',
    person: 'sten',
    address: '/estate/notices',
    sees: 'Cape Lorne',
    act: async (page) => {
      await page.locator('::-p-text(Satellite link drops)').click();
      await see(page, 'What was known, and when');
    },
  },
  { name: 'desk', person: 'rui', address: '/desk/nextUp', sees: 'Kiosk 3' },
  { name: 'desk-dark', person: 'rui', address: '/desk/nextUp', isDark: true, sees: 'Kiosk 3' },
  {
    name: 'ticket',
    person: 'rui',
    address: '/desk/nextUp',
    sees: 'Kiosk 3',
    act: open('Kiosk 3 frozen on payment'),
  },
  {
    name: 'plan',
    person: 'bia',
    address: '/desk/mine',
    sees: 'Lena Storm moves',
    act: async (page) => {
      await page.locator('::-p-text(Lena Storm moves)').click();
      await page.locator('::-p-text(see it in time)').click();
      await see(page, 'promise');
    },
  },
  { name: 'today', person: 'rui', address: '/desk', sees: 'last 7 days' },
  {
    name: 'service',
    person: 'helder',
    address: '/workshop/services/bridge-tablet',
    sees: 'people today',
    act: async (page) => {
      await page.locator('[aria-label^="Change “"]').click();
    },
  },
  {
    name: 'knowledge',
    person: 'marta',
    address: '/knowledge/health',
    sees: 'solved by an article alone',
  },
  {
    name: 'board',
    person: 'marta',
    address: '/measures/boards/given-month',
    sees: /Something is broken at a gate/,
  },
  { name: 'workshop', person: 'helder', address: '/workshop', sees: 'Working calendars' },
  {
    name: 'rule',
    person: 'helder',
    address: '/workshop/rules/gate-cards',
    ...{ isDark: true, isPortuguese: true },
    sees: 'Experimentar sobre',
    act: async (page) => {
      await page.locator('::-p-text(Experimentar sobre 30 dias)').click();
      await see(page, /teria agido/i);
    },
  },
  {
    name: 'thing',
    person: 'helder',
    address: '/estate/core-network',
    sees: 'People will notice',
  },
  {
    name: 'map',
    person: 'helder',
    address: '/estate/directory/map?depth=9',
    ...{ isDark: true, isPortuguese: true },
    sees: 'O mesmo em lista',
    // Drawn in a frame of its own, once a worker has arranged it.
    act: async (page) => {
      await page.waitForFunction(() => {
        const canvas = document.querySelector('canvas');
        if (!canvas || canvas.width === 0) return false;
        const picture = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height).data;
        return picture.some((value) => value > 0);
      });
    },
  },
];

/** Words choose shots; LISTO_SHOTS_DIR says where to, instead of docs/screenshots. */
const outDir = process.env.LISTO_SHOTS_DIR ?? 'docs/screenshots';
const wanted = process.argv.slice(2);
const app = await startDemoApp('screenshots');
const browser = await startBrowser(() => app.url);
await mkdir(outDir, { recursive: true });
for (const shot of SHOTS) {
  const { name, person, address, isDark = false, isPortuguese = false, width = 1280, sees, act } = shot;
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  if (person !== null)
    await app.listo.db.tables.people.update({ id: person }, { language: isPortuguese ? 'pt' : 'en' });
  const page = await browser.open(person, address, { isDark, width });
  await see(page, sees);
  await act?.(page);
  await page.waitForNetworkIdle({ idleTime: 300, timeout: 3_000 }).catch(() => undefined);
  await page.screenshot({ path: path.join(outDir, `${name}.png`) as `${string}.png` });
  process.stdout.write(`${name}\n`);
}
await browser.close();
await app.end();
