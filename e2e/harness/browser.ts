import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import puppeteer, { type BrowserContext, type ElementHandle, type Locator, type Page } from 'puppeteer-core';

const LOOK_MS = 60;
const TIMEOUT_MS = 40_000;
const ACT_MS = 12_000;
const TRIES = 3;

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

/** Pages of the application at `url` in the Chromium that the tests share. Errors that a page throws are kept in `failures`. */
export async function startBrowser(url: () => string, failures: string[] = []): Promise<TestBrowser> {
  const browserWSEndpoint = process.env.LISTO_TEST_BROWSER;
  if (!browserWSEndpoint) throw new Error('LISTO_TEST_BROWSER is not set; run the tests with npm test');
  const browser = await puppeteer.connect({ browserWSEndpoint, defaultViewport: null });
  const used: Seat[] = [];
  const free: Seat[] = [];
  async function takeSeat(): Promise<Seat> {
    const context = await browser.createBrowserContext();
    const page = await context.newPage();
    page.setDefaultTimeout(TIMEOUT_MS);
    page.on('pageerror', (error) => failures.push(String(error)));
    page.on('console', (message) => {
      if (message.text().startsWith('no words for')) failures.push(message.text());
    });
    await page.setExtraHTTPHeaders({ 'Accept-Language': 'en' });
    // What those hear who listen to the page is kept; else every question after a name has all of it worked out anew.
    await (await page.createCDPSession()).send('Accessibility.enable');
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
      await Promise.all([...used, ...free].map(({ context }) => context.close()));
      await browser.disconnect();
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
  // A page of the same site: another would be given a process of its own, and this one as well when it comes back.
  await page.goto(`${new URL(page.url()).origin}/healthz`).catch(() => page.goto('about:blank'));
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

/** What has this name (and role) for those who listen to the page, once it is there. */
export async function find(
  within: Page | ElementHandle,
  name: string,
  role?: string,
): Promise<ElementHandle> {
  const wanted = !role ? '' : `[role="${role}"]`;
  const end = performance.now() + TIMEOUT_MS;
  for (;;) {
    const found = await within.$(`::-p-aria([name="${name}"]${wanted})`);
    if (found) return found;
    if (performance.now() > end) {
      const root = ('asElement' in within ? within : await within.$('body')) as ElementHandle<HTMLElement>;
      const shown = await root.evaluate((root) => {
        const labels = [...root.querySelectorAll('label')].map((label) => label.textContent);
        return `${root.innerText.slice(0, 1500)}\nits labels: ${labels.join(' | ')}`;
      });
      throw new Error(`nothing is called “${name}” ${role ?? ''}; the page shows:\n${shown}`);
    }
    // The driver's own way asks at every frame, which keeps a whole processor busy.
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}

/** Does something with what has a name, again where the page has put another in its place meanwhile. */
async function use(
  within: Page | ElementHandle,
  [name, role]: [name: string, role?: string | undefined],
  act: (locator: Locator<Element>) => Promise<void>,
): Promise<void> {
  for (let tries = 1; ; tries++) {
    const locator = (await find(within, name, role)).asLocator().setTimeout(ACT_MS);
    const error = await act(locator).then(
      () => null,
      (thrown: unknown) => thrown as Error,
    );
    if (error === null) return;
    if (tries === TRIES) throw error;
  }
}

/** Clicks what of a kind has words in it. */
export async function clickThat(page: Page, kind: string, words: string): Promise<void> {
  const found = await page.waitForFunction(
    (selector, text) =>
      [...document.querySelectorAll<HTMLElement>(selector)].find(
        (each) => each.textContent.includes(text) && each.checkVisibility(),
      ),
    {},
    kind,
    words,
  );
  await (found as ElementHandle<HTMLElement>).asLocator().click();
}

/** Clicks what has this role and name. */
export function click(within: Page | ElementHandle, name: string, role = 'button'): Promise<void> {
  return use(within, [name, role], (locator) => locator.click());
}

/** Waits for what is said, to those who listen to the page, of something that is moved by the keyboard. */
export async function hearMoving(page: Page, words: RegExp): Promise<void> {
  await page.waitForFunction(
    (pattern) => new RegExp(pattern).test(document.querySelector('[id^="DndLiveRegion"]')?.textContent ?? ''),
    { timeout: TIMEOUT_MS },
    words.source,
  );
}

const TEXT_FIELDS =
  'textarea, input:not([type]), input[type="text"], input[type="search"], input[type="email"]';

/** Types into the field with this label. */
export function type(
  within: Page | ElementHandle,
  label: string,
  text: string,
  role?: string,
): Promise<void> {
  return use(within, [label, role], async (locator) => {
    const field = await locator.waitHandle();
    const isText = await field.evaluate((element, selector) => element.matches(selector), TEXT_FIELDS);
    await locator.fill(isText ? text.slice(0, 1) : text);
    // What comes in at once takes the time of one letter.
    if (isText && text.length > 1) await field.frame.page().keyboard.sendCharacter(text.slice(1));
  });
}

/** Sets a field that is not typed into, such as a date, so that the page hears of it. */
export async function setField(page: Page, label: string, value: string): Promise<void> {
  const field = await find(page, label);
  await field.evaluate((element, text) => {
    const input = element as HTMLInputElement;
    input.focus();
    const { set } = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!;
    set!.call(input, text);
    input.dispatchEvent(new Event('input', { bubbles: true }));
    // What opens with the field closes with it.
    input.blur();
  }, value);
}

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

const STANDARD = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What axe finds against WCAG 2.2 AA on the page, each with the element at fault. */
export async function listBarriers(page: Page, runOnly: string[] = STANDARD): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe);
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
    // What passes needs no account, and each account a way to its element; none of these asks for what pages link to.
    const { violations } = await checker.run({
      runOnly,
      resultTypes: ['violations'],
      selectors: false,
      preload: false,
    });
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
