import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { startKeeper } from './keep.mjs';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** The browser's helpers may outlive it for a moment and still write into its profile. */
function endRest(group) {
  try {
    process.kill(-group, 'SIGKILL');
  } catch {
    // None is left.
  }
}

/** Debian's Chromium without a window, on a profile of its own. @returns its address for others, and its end */
export async function startChromium(executablePath) {
  const { default: puppeteer } = await import('puppeteer-core');
  const userDataDir = mkdtempSync(path.join(os.tmpdir(), 'listo-chromium-'));
  const browser = await puppeteer.launch({ executablePath, headless: true, userDataDir, args: FLAGS });
  const url = browser.wsEndpoint();
  const child = browser.process();
  const keeper = startKeeper({ groups: [child.pid], folders: [userDataDir], graceMs: 1_000 });
  // Whoever stays connected is asked at each new page, and it waits for the answer.
  await browser.disconnect();
  return {
    url,
    async stop() {
      const ended = new Promise((resolve) => child.once('exit', resolve));
      if (child.kill()) await ended;
      endRest(child.pid);
      rmSync(userDataDir, { recursive: true, force: true, maxRetries: 5 });
      keeper.end();
    },
  };
}
