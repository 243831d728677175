import { existsSync, readFileSync, rmSync } from 'node:fs';
import { setTimeout as delay } from 'node:timers/promises';

/**
 * Outlives the program that started it, and clears up after it: whatever way that ends, what it left running is ended.
 * It knows by its input, which closes with the program. Given: processes (by their number), whole groups of them, what
 * their command lines hold (so that a number that was given anew is left alone), and folders that go.
 */
const { processes = [], groups = [], mark = '', folders = [], graceMs = 3_000 } = JSON.parse(process.argv[2]);
const LAST_MS = 8_000;

/** Whether a process is there, is what it was, and is more than a name that nobody has asked after. */
function isAlive(pid) {
  try {
    if (/\) [ZX] /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'))) return false;
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(mark);
  } catch {
    return false;
  }
}

function signal(name) {
  for (const pid of processes.filter(isAlive)) tell(pid, name);
  for (const group of groups) tell(-group, name);
}

function tell(pid, name) {
  try {
    process.kill(pid, name);
  } catch {
    // It has ended.
  }
}

// A terminal's signals are for the program; this ends after it.
for (const name of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(name, () => undefined);
process.stdin.resume();
await new Promise((resolve) =>
  process.stdin.once('close', resolve).once('end', resolve).once('error', resolve),
);
// What the program started may end by itself, in its order.
await delay(graceMs);
signal('SIGTERM');
for (let waited = 0; processes.some(isAlive) && waited < LAST_MS; waited += 100) await delay(100);
signal('SIGKILL');
for (const folder of folders)
  if (existsSync(folder)) rmSync(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
