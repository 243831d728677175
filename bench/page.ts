import { spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { Agent, get, type IncomingMessage } from 'node:http';
import { text } from 'node:stream/consumers';
import mariadb from 'mariadb';
import puppeteer, { type Page } from 'puppeteer-core';
import type { Listo } from '../server/listo';
import { prepareDemo } from './prepare';
import { median, p95, report } from './report';
import { seedTickets } from './seed';
import { signIn, startServer, untilQuiet } from './server';

const ENTRIES = 200;
/** A server that runs has been asked before: so many rounds are for its compiler. */
const WARMING = 200;
const ROUNDS = 200;
const ROWS = 10_000;
const TICKETS = 20_000;
const SCROLL_MS = 120_000;
/** Pixels a frame: a fast wheel (6,000 a second at 60 Hz), and flung from end to end. */
const SPEEDS = { 'a fast wheel': 100, flung: 400 };
/** Three refreshes at 60 Hz are 50 ms, told as a little more or less. */
const LONG_MS = 50.5;
const KEYS = 40;

/** A ticket on whose thread much was said. @returns its number */
async function fillThread(listo: Listo): Promise<number> {
  const { tables, select } = listo.db;
  const [ticket] = await select<{ number: number }>(
    "SELECT number FROM tickets WHERE teamId = 'onboard' AND state = 'inWork' ORDER BY number DESC LIMIT 1",
  );
  const { number } = ticket!;
  const said = Array.from({ length: ENTRIES }, (_, i) => ({
    id: `bench-said-${i}`,
    at: listo.clock.now() + i,
  }));
  await tables.messages.insertAll(
    said.map(({ id, at }, i) => ({
      ...{
        id,
        at,
        ticketNumber: number,
        authorId: 'rui',
        via: 'desk' as const,
        readBy: 'requester' as const,
      },
      ...{
        isByTeam: true,
        isPublic: false,
        format: 'plain' as const,
        links: [],
        text: `What was said, ${i}`,
      },
    })),
  );
  await tables.journal.insertAll(
    said.map(({ id, at }) => ({
      ...{
        at,
        actorId: 'rui',
        via: 'desk' as const,
        type: 'answered' as const,
        ticketNumber: number,
        work: 'ticket',
      },
      ...{ audience: 'requester' as const, changes: {}, data: { messageId: id, version: 1 } },
    })),
  );
  return number;
}

/** An answer through HTTP, asked as barely as the driver asks: what a client adds is not the server's. */
async function ask(address: string, cookie: string, agent: Agent): Promise<string> {
  const request = get(address, { agent, headers: { Cookie: cookie } });
  const [answer] = (await once(request, 'response')) as [IncomingMessage];
  return text(answer);
}

/** Opening a ticket on whose thread much was said, beside reading its row by its key over the bare driver. */
async function benchTicket(listo: Listo, url: string, cookie: string): Promise<void> {
  const number = await fillThread(listo);
  const connection = await mariadb.createConnection(listo.config.DATABASE_URL.replace(/^mysql/, 'mariadb'));
  const bare: number[] = [];
  const opened: number[] = [];
  const agent = new Agent({ keepAlive: true });
  for (let i = 0; i < WARMING + ROUNDS; i++) {
    let start = performance.now();
    await connection.query('SELECT * FROM tickets WHERE number = ?', [number]);
    bare.push(performance.now() - start);
    start = performance.now();
    const page = await ask(`${url}/api/v1/tickets/${number}`, cookie, agent);
    opened.push(performance.now() - start);
    const { entries } = JSON.parse(page) as { entries: unknown[] };
    if (entries.length < ENTRIES) throw new Error('the thread is not all there');
  }
  agent.destroy();
  await connection.end();
  const [ours, least] = [p95(opened.slice(WARMING)), p95(bare.slice(WARMING))];
  report(
    `a ticket with ${ENTRIES} entries: p95`,
    `${(ours / least).toFixed(1)} ×`,
    `a read by key (${ours.toFixed(1)} against ${least.toFixed(2)} ms; wanted: under 10); by the middle ${(median(opened.slice(WARMING)) / median(bare.slice(WARMING))).toFixed(1)} ×`,
  );
}

/** Scrolls until so many rows have gone by. @returns how long each frame took, and how many rows there are */
function scroll(page: Page, px: number): Promise<{ frames: number[]; seen: number }> {
  return page.evaluate(
    (rows, most, step) =>
      new Promise<{ frames: number[]; seen: number }>((resolve) => {
        const all = [...document.querySelectorAll<HTMLElement>('#content *'), document.documentElement];
        const scroller = all
          .filter(({ scrollHeight, clientHeight }) => scrollHeight > clientHeight + 200 && clientHeight > 200)
          .sort((a, b) => b.scrollHeight - a.scrollHeight)[0]!;
        const row = document.querySelector<HTMLElement>('[role="row"][aria-rowindex], [data-number]');
        const height = row?.offsetHeight ?? 56;
        const frames: number[] = [];
        const began = performance.now();
        let last = began;
        const draw = (now: number): void => {
          frames.push(now - last);
          last = now;
          scroller.scrollTop += step;
          const seen = Math.round(scroller.scrollTop / height);
          if (seen >= rows || now - began > most) resolve({ frames: frames.slice(2), seen });
          else requestAnimationFrame(draw);
        };
        requestAnimationFrame(draw);
      }),
    ROWS,
    SCROLL_MS,
    px,
  );
}

/** How long it takes from a key to the next frame that shows what came of it: Chromium's own event timing. */
async function pressKeys(page: Page): Promise<number[]> {
  await page.evaluate(() => {
    const seen: number[] = [];
    Object.assign(window, { benchKeys: seen });
    new PerformanceObserver((list) => {
      for (const { name, duration } of list.getEntries()) if (name === 'keydown') seen.push(duration);
    }).observe({ type: 'event', durationThreshold: 16, buffered: false } as PerformanceObserverInit);
  });
  for (let i = 0; i < KEYS; i++) {
    await page.keyboard.press('ArrowDown');
    await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => resolve(null))));
  }
  // Faster ones than a frame are not told.
  const told = await page.evaluate(() => (window as unknown as { benchKeys: number[] }).benchKeys);
  return [...told, ...Array.from({ length: Math.max(0, KEYS - told.length) }, () => 8)];
}

/** How a list of ten thousand rows scrolls and answers keys, in Chromium's own timing. */
async function benchScroll(url: string, cookie: string): Promise<void> {
  const browser = await puppeteer.connect({
    browserWSEndpoint: process.env.LISTO_BENCH_BROWSER!,
    defaultViewport: { width: 1280, height: 800 },
  });
  const page = await browser.newPage();
  const [name, value] = cookie.split('=') as [string, string];
  await browser.setCookie({ name, value, domain: '127.0.0.1', path: '/', httpOnly: true });
  // The compiler that runs this names functions by a helper that pages do not have.
  await page.evaluateOnNewDocument('globalThis.__name = (each) => each');
  await page.goto(`${url}/desk/everything`);
  await page.waitForFunction(() => document.body.innerText.includes('Who moves'), { timeout: 60_000 });
  await page.waitForSelector('[role="row"][data-number]');
  const keys = await pressKeys(page);
  report('a key in the list: p95 to the next frame', `${p95(keys).toFixed(0)} ms`, 'wanted: within 100 ms');
  for (const [name, px] of Object.entries(SPEEDS)) {
    await page.goto(`${url}/desk/everything`);
    await page.waitForSelector('[role="row"][data-number]');
    // What the page loads beside the list is over; one answer, of what changes, goes on.
    await page.waitForNetworkIdle({ concurrency: 2 });
    const { frames, seen } = await scroll(page, px);
    const long = frames.filter((took) => took > LONG_MS);
    report(
      `scrolling ${seen.toLocaleString('en')} rows, ${name}: frames over 50 ms`,
      `${long.length} of ${frames.length}`,
      `longest ${Math.max(...frames).toFixed(0)} ms, p95 ${p95(frames).toFixed(0)} ms; wanted: none`,
    );
  }
  await browser.disconnect();
}

/** The pages themselves: a long thread, a long list. */
export async function benchPage(): Promise<void> {
  spawnSync(process.execPath, ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'error'], {
    stdio: 'inherit',
  });
  const listo = await prepareDemo();
  await seedTickets(listo, TICKETS);
  const server = await startServer({ withPages: true });
  const cookie = await signIn(server.url, 'rui');
  await untilQuiet(listo);
  await benchTicket(listo, server.url, cookie);
  await benchScroll(server.url, cookie);
  await server.stop();
  await listo.db.close();
}
