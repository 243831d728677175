import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { giveUp, say } from './say.mjs';

export const ROOT = path.resolve(import.meta.dirname, '..');
const SYSTEM_DIRS = ['/usr/sbin', '/usr/local/sbin', '/usr/bin', '/usr/local/bin'];

/** The path of a program, also where a login's PATH leaves out the system folders. */
export function findProgram(...names) {
  const dirs = [...(process.env.PATH ?? '').split(path.delimiter), ...SYSTEM_DIRS];
  for (const name of names)
    for (const dir of dirs) if (dir && existsSync(path.join(dir, name))) return path.join(dir, name);
  return null;
}

/** Installs npm packages when they are missing or older than the lock file. */
export function ensurePackages() {
  const installed = path.join(ROOT, 'node_modules/.package-lock.json');
  const lock = path.join(ROOT, 'package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  say('Installing npm packages (about a minute) …');
  const { status } = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  if (status !== 0)
    giveUp('npm could not install the packages. Check the network, then run the command again.');
}

/** Installs Debian packages as root or through sudo; without rights says what to run. */
export function ensureDebianPackage(packageName, ...programs) {
  const found = findProgram(...programs);
  if (found) return found;
  const isRoot = process.getuid?.() === 0;
  const prefix = isRoot ? [] : ['sudo', '-n'];
  const command = `sudo apt-get update && sudo apt-get install -y --no-install-recommends ${packageName}`;
  if (!isRoot && spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status !== 0)
    giveUp(
      `Listo needs Debian's ${packageName}, and may not install it as this user. Please run:\n\n  ${command}\n\nand then this command again.`,
    );
  say(`Installing Debian's ${packageName} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const run = (...args) => {
    const [program, ...rest] = [...prefix, ...args];
    return spawnSync(program, rest, { env, stdio: ['ignore', 'ignore', 'inherit'] }).status;
  };
  run('apt-get', 'update', '-q');
  const status = run('apt-get', 'install', '-y', '-q', '--no-install-recommends', packageName);
  const installed = findProgram(...programs);
  if (status !== 0 || !installed)
    giveUp(`Debian's ${packageName} could not be installed. Please run:\n\n  ${command}`);
  return installed;
}

/** Whether a file is missing or older than anything in some folders. */
export function isOutOfDate(file, ...sources) {
  if (!existsSync(file)) return true;
  const args = [...sources.filter(existsSync), '-newer', file, '-type', 'f', '-print', '-quit'];
  return execFileSync('find', args, { encoding: 'utf8' }).trim() !== '';
}
