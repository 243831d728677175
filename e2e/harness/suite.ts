import { startDemoApp, type DemoApp } from './app';
import { startBrowser, type TestBrowser } from './browser';

const START_MS = 120_000;

/**
 * What a suite in the browser begins and ends with: the demo's application on a database of its own, and a browser whose
 * pages are closed after each test, which fails where a page threw an error. Both are filled in before the first test.
 */
export function demoSuite(name: string): {
  app: DemoApp;
  browser: TestBrowser;
  /** What pages threw in this test, so far. */
  failures: string[];
} {
  // What has not begun has nothing to end.
  const app = { end: () => Promise.resolve() } as DemoApp;
  const browser = { closePages: () => Promise.resolve(), close: () => Promise.resolve() } as TestBrowser;
  const failures: string[] = [];
  beforeAll(async () => {
    Object.assign(app, await startDemoApp(name));
    Object.assign(browser, await startBrowser(() => app.url, failures));
  }, START_MS);
  afterAll(async () => {
    await browser.close();
    await app.end();
  });
  afterEach(async () => {
    await browser.closePages();
    expect(failures.splice(0)).toEqual([]);
  });
  return { app, browser, failures };
}
