import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { report } from './report';

const gzipped = (file: string): number => gzipSync(readFileSync(file), { level: 9 }).length;
const kilobytes = (bytes: number): string => `${(bytes / 1000).toFixed(1)} kB`;

/** What a browser fetches before Ask can be used, and what comes only when the Desk is entered. */
export function benchFirstLoad(): Promise<void> {
  spawnSync(process.execPath, ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'error'], {
    stdio: 'inherit',
  });
  const page = readFileSync('dist/index.html', 'utf8');
  const first = [...page.matchAll(/assets\/[\w-]+\.js/g)].map(([file]) => path.join('dist', file));
  const all = readdirSync('dist/assets')
    .filter((file) => file.endsWith('.js'))
    .map((file) => path.join('dist/assets', file));
  const sum = (files: string[]): number => files.reduce((total, file) => total + gzipped(file), 0);
  report('first load of Ask, script gzipped', kilobytes(sum(first)), 'at most 250 kB');
  report(
    'loaded only where used, script gzipped',
    kilobytes(sum(all.filter((file) => !first.includes(file)))),
  );
  return Promise.resolve();
}
