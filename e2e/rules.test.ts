import type { Page } from 'puppeteer-core';
import { click, find, listBarriersInBoth, see, setField } from './harness/browser';
import { SETTINGS, toSetting } from '../web/workshop/find/settings';
import { demoSuite } from './harness/suite';

/** Rules, from the sentence to what they do on a ticket, and the way to every setting, in the real interface. */
const { app, browser } = demoSuite('rules');

/** Sends a request of a service as whoever is signed in. @returns its number */
const send = (page: Page, serviceId: string, title: string, answers: object): Promise<number> =>
  page.evaluate(
    async (body) => {
      const answer = await fetch('/api/v1/tickets', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
      return ((await answer.json()) as { number: number }).number;
    },
    { serviceId, title, answers },
  );

test('a rule is begun from a ready one, tried over what happened, switched on, and acts; what it did is put back', async () => {
  const helder = await browser.open('helder', '/workshop/rules');
  await see(helder, 'Cards at the gates go to the network');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'Begin with a ready one …');
  await click(helder, 'Who goes first is urgent', 'menuitem');
  await see(helder, 'What is done then, in order');
  await setField(helder, 'Name, en', 'Turnstiles are urgent');
  await helder.reload();
  await see(helder, 'Try it over 30 days');
  await click(helder, 'Try it over 30 days');
  await see(helder, /It would (not )?have fired/);
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await click(helder, 'Save');
  await see(helder, 'is there, switched off');
  await click(helder, 'Switch it on');
  await see(helder, 'is in use from now on');

  // Someone who goes first reports what would be less urgent else.
  await app.listo.db.tables.people.update({ id: 'tomas' }, { goesFirst: true });
  const tomas = await browser.open('tomas', '/ask');
  const answers = { site: 'Port Alder', what: 'It stands', impact: 'person', urgency: 'slowsWork' };
  const number = await send(tomas, 'gate-broken', 'The turnstile stands', answers);
  const rui = await browser.open('rui', `/desk/everything/${number}`);
  await see(rui, /Rule “Turnstiles are urgent” changed Priority from “P[34]” to “P2”/);
  await click(rui, 'Rules: why, why not?');
  await find(rui, 'What rules did here, and why others did not', 'dialog');
  await see(rui, /Fired .*: change a field/);
  expect(await listBarriersInBoth(rui)).toEqual([]);
  await rui.keyboard.press('Escape');
  await click(rui, 'Put it back');
  await see(rui, 'Put back as it was.');
});

test('a worry leads to its setting, from the Workshop’s first page and from anywhere', async () => {
  const helder = await browser.open('helder', '/workshop');
  await see(helder, 'All that work needs is there.');
  expect(await listBarriersInBoth(helder)).toEqual([]);
  await helder.locator('input[aria-label="Find a setting"]').fill('nobody takes it');
  await helder.locator('[role=option] ::-p-text(How tickets find a person)').click();
  await helder.waitForSelector('[data-marked="true"]');
  expect(new URL(helder.url()).pathname).toBe('/workshop/routing');
  await helder.keyboard.down('Control');
  await helder.keyboard.press('k');
  await helder.keyboard.up('Control');
  await helder.locator('input[aria-label="Find or do anything"]').fill('email not arrived');
  await see(helder, 'Mail that came in');
});

test('each setting is marked where it stands', async () => {
  const helder = await browser.open('helder', '/workshop');
  await see(helder, 'Working calendars');
  const missing: string[] = [];
  for (const setting of SETTINGS.filter((each) => 'mark' in each)) {
    // As a link within the page goes there, which is quicker than to load all anew.
    await helder.evaluate((address) => {
      for (const marked of document.querySelectorAll<HTMLElement>('[data-marked]'))
        delete marked.dataset.marked;
      history.pushState(null, '', address);
      dispatchEvent(new PopStateEvent('popstate'));
    }, toSetting(setting));
    await helder
      .waitForSelector('[data-marked="true"]', { timeout: 8_000 })
      .catch(() => missing.push(setting.id));
  }
  expect(missing).toEqual([]);
});
