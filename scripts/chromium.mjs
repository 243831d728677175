import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Debian's Chromium without a window, on a profile of its own. @returns its address for others, and its end */
export async function startChromium(executablePath) {
  const { default: puppeteer } = await import('puppeteer-core');
  const userDataDir = mkdtempSync(path.join(os.tmpdir(), 'listo-chromium-'));
  const browser = await puppeteer.launch({ executablePath, headless: true, userDataDir, args: FLAGS });
  return {
    url: browser.wsEndpoint(),
    async stop() {
      await browser.close();
      rmSync(userDataDir, { recursive: true, force: true });
    },
  };
}
