import { readFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import puppeteer, { type Browser, type BrowserContext, type Page } from 'puppeteer-core';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

const LOOK_MS = 60;

export type TestBrowser = {
  /** A page of someone's own (a context apart), signed in as one of the demo's people. */
  open(
    personId: string | null,
    address: string,
    options?: { isDark?: boolean; width?: number },
  ): Promise<Page>;
  /** Closes every page that `open` opened: what stays open follows along and takes time from the rest. */
  closePages(): Promise<void>;
  close(): Promise<void>;
};

/** Debian's Chromium on the application at `url`. Errors that a page throws are kept in `failures`. */
export async function startBrowser(url: () => string, failures: string[] = []): Promise<TestBrowser> {
  const userDataDir = await mkdtemp(path.join(os.tmpdir(), 'listo-chromium-'));
  const executablePath = process.env.LISTO_TEST_CHROMIUM ?? '/usr/bin/chromium';
  const browser: Browser = await puppeteer.launch({
    executablePath,
    headless: true,
    userDataDir,
    args: FLAGS,
  });
  const used: Seat[] = [];
  const free: Seat[] = [];
  async function takeSeat(): Promise<Seat> {
    const context = await browser.createBrowserContext();
    const page = await context.newPage();
    page.setDefaultTimeout(25_000);
    page.on('pageerror', (error) => failures.push(String(error)));
    await page.setExtraHTTPHeaders({ 'Accept-Language': 'en' });
    return { context, page };
  }
  return {
    async open(personId, address, { isDark = false, width = 1280 } = {}) {
      const seat = free.pop() ?? (await takeSeat());
      used.push(seat);
      const { page, context } = seat;
      await page.setViewport({ width, height: 800 });
      await showIn(page, isDark ? 'dark' : 'light');
      if (personId !== null) await signIn(context, url(), personId);
      await page.goto(url() + address);
      return page;
    },
    async closePages() {
      await Promise.all(used.map(clear));
      free.push(...used.splice(0));
    },
    async close() {
      await browser.close();
      await rm(userDataDir, { recursive: true, force: true });
    },
  };
}

/** A window of someone's own. What one costs is a good part of a short test, so that it goes to the next one. */
type Seat = { context: BrowserContext; page: Page };

/** Leaves nothing of the one before but what the browser keeps of the pages' files. */
async function clear({ context, page }: Seat): Promise<void> {
  page.removeAllListeners('request');
  await page.setRequestInterception(false);
  await context.deleteCookie(...(await context.cookies()));
  await page.evaluate(() => localStorage.clear()).catch(() => undefined);
  await page.goto('about:blank');
}

/** The theme that the person's machine asks for. */
function showIn(page: Page, scheme: 'light' | 'dark'): Promise<void> {
  return page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: scheme },
    { name: 'prefers-reduced-motion', value: 'reduce' },
  ]);
}

/** Signs someone in as one of the demo's people. */
export async function signIn(context: BrowserContext, url: string, personId: string): Promise<void> {
  const answer = await fetch(`${url}/api/v1/session/demo`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId }),
  });
  const [name, value] = answer.headers.getSetCookie()[0]!.split(';')[0]!.split('=') as [string, string];
  const { hostname: domain } = new URL(url);
  await context.setCookie({ name, value, domain, path: '/', httpOnly: true, sameSite: 'Lax' });
}

/** Waits for text to stand on the page. */
export async function see(page: Page, text: string | RegExp): Promise<void> {
  const [source, flags] =
    typeof text === 'string' ? [text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), ''] : [text.source, text.flags];
  try {
    await page.waitForFunction(
      (pattern, flag) => new RegExp(pattern, flag).test(document.body.innerText),
      // What a page shows is costly to ask.
      { polling: LOOK_MS },
      source,
      flags,
    );
  } catch {
    const shown = await page.evaluate(() => document.body.innerText);
    throw new Error(`wanted to see ${String(text)}; the page shows:\n${shown.slice(0, 1500)}`);
  }
}

/** Clicks what has this role and name. */
export async function click(page: Page, name: string, role = 'button'): Promise<void> {
  await page.locator(`::-p-aria([name="${name}"][role="${role}"])`).click();
}

/** Types into the field with this label. */
export async function type(page: Page, label: string, text: string): Promise<void> {
  await page.locator(`::-p-aria([name="${label}"])`).fill(text);
}

/** Sets a field that is not typed into, such as a date, so that the page hears of it. */
export async function setField(page: Page, label: string, value: string): Promise<void> {
  await page.locator(`::-p-aria([name="${label}"])`).wait();
  await page.$eval(
    `::-p-aria([name="${label}"])`,
    (input, text) => {
      const { set } = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!;
      set!.call(input, text);
      input.dispatchEvent(new Event('input', { bubbles: true }));
    },
    value,
  );
}

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

const STANDARD = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What axe finds against WCAG 2.2 AA on the page, each with the element at fault. */
export async function listBarriers(page: Page, runOnly: string[] = STANDARD): Promise<string[]> {
  await page.evaluate(axe);
  // What stays at the top hides what has been scrolled under it.
  await page.evaluate(() => scrollTo({ top: 0, behavior: 'instant' }));
  return page.evaluate(async (runOnly) => {
    const { axe: checker } = window as unknown as {
      axe: {
        run(
          options: object,
        ): Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>;
      };
    };
    const { violations } = await checker.run({ runOnly });
    return violations.flatMap(({ id, nodes }) =>
      nodes.map(
        ({ html, failureSummary }) => `${id}: ${html.slice(0, 160)} (${failureSummary.slice(0, 220)})`,
      ),
    );
  }, runOnly);
}

/** What axe judges by colour, which is all that another theme changes. */
const BY_COLOUR = ['color-contrast', 'link-in-text-block'];

/** `listBarriers` in the light and then in the dark theme of the same page, which is left dark. */
export async function listBarriersInBoth(page: Page): Promise<string[]> {
  const found: string[] = [];
  for (const scheme of ['light', 'dark'] as const) {
    await showIn(page, scheme);
    await page.waitForFunction(
      (wanted) => document.documentElement.getAttribute('data-mantine-color-scheme') === wanted,
      {},
      scheme,
    );
    found.push(
      ...(await listBarriers(page, scheme === 'dark' ? BY_COLOUR : STANDARD)).map(
        (barrier) => `${scheme}: ${barrier}`,
      ),
    );
  }
  return found;
}
