import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { readSetUpCode } from '../server/sessions/setUp';
import { startEmptyApp } from './harness/app';
import {
  click,
  find,
  listBarriersInBoth,
  see,
  startBrowser,
  type,
  type TestBrowser,
} from './harness/browser';

/** An organisation that moves in: from nothing at all to the first request that is asked for, done and confirmed. */
let app: Awaited<ReturnType<typeof startEmptyApp>>;
let browser: TestBrowser;
let folder: string;
const failures: string[] = [];
beforeAll(async () => {
  app = await startEmptyApp('moveIn');
  browser = await startBrowser(() => app.url, failures);
  folder = await mkdtemp(path.join(os.tmpdir(), 'listo-people-'));
}, 120_000);
afterAll(async () => {
  await browser.close();
  await app.end();
  await rm(folder, { recursive: true, force: true });
});

const NAMES = ['Ada', 'Ben', 'Cleo', 'Dan', 'Eva', 'Finn', 'Gil', 'Hana', 'Ivo', 'Joy'];
const PASSWORD = 'a quiet harbour at dawn';

test('from nothing to the first request that is asked for, agreed, done and confirmed, with nothing prepared', async () => {
  const nell = await browser.open(null, '/');
  await see(nell, 'Begin with yourself');
  await type(nell, 'Code', (await readSetUpCode(app.listo))!);
  await type(nell, 'Organisation', 'Quayside');
  await type(nell, 'Your name', 'Nell Harper');
  await type(nell, 'Mail address', 'nell@quayside.example');
  await nell.locator('input[autocomplete="new-password"]').fill('long enough for this');
  await click(nell, 'Begin');
  await see(nell, 'What do you need, Nell?');

  // The Workshop says what is there and what comes next.
  await nell.locator('header ::-p-text(Workshop)').click();
  await see(nell, 'The order in which an organisation is set up.');
  await see(nell, '1 calendar');
  await see(nell, '1 site');
  expect(await listBarriersInBoth(nell)).toEqual([]);

  await nell.goto(`${app.url}/workshop/hours`);
  await click(nell, 'New site …');
  await type(await find(nell, 'New site', 'dialog'), 'Name of the site', 'Pier Two', 'textbox');
  await click(await find(nell, 'New site', 'dialog'), 'Save it');
  await see(nell, '“Pier Two” is there.');
  await click(nell, 'New team …');
  const made = await find(nell, 'New team', 'dialog');
  await type(made, 'Name in English', 'Facilities', 'textbox');
  await type(made, 'Name in Portuguese', 'Instalações', 'textbox');
  await click(made, 'Save it');
  await see(nell, '“Facilities” is there');

  // Ten people from a table, whose manager stands last.
  const rows = NAMES.map((name) => `${name} Reed;${name}@quayside.example;Pier Two;joy@quayside.example;`);
  rows[0] = rows[0]!.replace(/;$/, ';Facilities');
  rows[9] = 'Joy Reed;joy@quayside.example;Pier Two;;';
  await writeFile(path.join(folder, 'people.csv'), ['Name;Mail;Site;Manager;Team', ...rows].join('\n'));
  await nell.goto(`${app.url}/workshop/people`);
  await click(nell, 'From a table …', 'link');
  const input = await nell.waitForSelector('input[type="file"]');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(path.join(folder, 'people.csv'));
  await click(nell, 'Check every row');
  await see(nell, 'Rows that fit: 10; that do not: 0.');
  await click(nell, 'Write 10 people');
  await see(nell, 'Done: 10 people are written.');

  // Where no mail leaves yet, whoever invites hands the link over.
  const invite = async (name: string) => {
    const [person] = await app.listo.db.tables.people.find({ name });
    await nell.goto(`${app.url}/workshop/people/${person!.id}`);
    await click(nell, 'Invite');
    const link = await nell.waitForFunction(
      () =>
        [...document.querySelectorAll('input')].find(({ value }) => value.includes('/welcome/'))?.value ??
        null,
    );
    const page = await browser.open(null, new URL((await link.jsonValue())!).pathname);
    await see(page, 'Welcome to Quayside');
    await type(page, 'Password (at least 12 characters)', PASSWORD);
    await click(page, 'Come in');
    await see(page, `What do you need, ${name.split(' ')[0]!}?`);
    return page;
  };
  const ben = await invite('Ben Reed');
  const joy = await invite('Joy Reed');

  await nell.goto(`${app.url}/workshop/services`);
  await click(nell, 'New service …');
  await type(nell, 'What employees read, in English', 'A parking place');
  await type(nell, 'The same in Portuguese', 'Um lugar de estacionamento');
  await click(nell, 'Begin');
  await see(nell, 'draft, never published');
  await type(nell, 'In one plain sentence, en', 'For a day, at Pier Two.');
  await type(nell, 'In one plain sentence, pt', 'Por um dia, no Pier Two.');
  await click(nell, '+ someone must agree');
  await see(nell, 'Nothing is in the way.');
  expect(await listBarriersInBoth(nell)).toEqual([]);
  await click(nell, 'Publish');
  await see(nell, 'Published. This is version 1.');

  await ben.goto(`${app.url}/s/a-parking-place`);
  await type(ben, 'In one line needed', 'A place on Friday');
  await type(ben, 'What would you like to know? needed', 'Is there one near the gate?');
  await click(ben, 'Send to Service desk');
  await see(ben, 'Joy Reed has to agree first.');
  await joy.goto(`${app.url}/ask`);
  const ask = await find(joy, 'A place on Friday', 'article');
  await (await find(ask, 'Yes', 'button')).click();
  await see(ben, 'Service desk have it and will take it up.');

  await nell.goto(`${app.url}/desk/nextUp`);
  await nell.locator('::-p-text(A place on Friday)').click();
  await click(nell, 'Take');
  await see(ben, 'Nell Harper is on it. Then you confirm.');
  await click(nell, 'Done …');
  await type(nell, 'How was it solved?', 'Place 12 is yours.');
  await click(nell, 'Done');
  await see(ben, 'It is done. Is it, for you too?');
  await click(ben, 'Yes, it is done');
  await ben.locator('::-p-text(Very good)').click();
  await click(ben, 'Confirm');
  await see(ben, 'Done and closed.');
  expect(failures).toEqual([]);
}, 240_000);
